import { expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import ts from 'typescript';

/** The right-hand column of docs/words.md, as what must not stand in a text people read. */
const NOT_OURS: readonly [RegExp, string][] = [
  [/\b(kept|Kept)\b|\bKeep(?!ing)\b/, 'save, saved'],
  [/\banew\b/, 'again, re-'],
  [/\bpapers?\b/i, 'document, attachment, posting'],
  [/\bthrow (it|the draft)? ?away\b/i, 'delete'],
  [/\btake (it|them|the \w+) (away|back)\b/i, 'delete, return to draft, reverse'],
  [/\bis no (day|date|amount|percent|number|code|valid)/, 'is not a valid …'],
  [/\bis there twice\b/, 'appears twice'],
  [/\bcomes? to nothing\b/, 'nets to zero'],
  [/\bper cents?\b/i, 'percent, %'],
  [/\bby this (month|date)\b/, 'to date'],
  [/\b(told|reckon\w*)\b/i, 'shown, calculated'],
  [/\bprice book\b/i, 'price list'],
  [/\bhalf-made\b/i, 'draft'],
  [/\bcustomer\b/i, 'client'],
  [/\bthe upright\b|\blies in the outbox\b|\bstands at nothing\b|\bmakes of the job\b|\bLay it in\b/, 'plain words'],
];

/** Texts a person reads: all JSX text, and strings that have a space. The open format's own names stay as they are. */
function textsOf(file: string): { text: string; line: number }[] {
  const source = ts.createSourceFile(
    file,
    readFileSync(file, 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    file.endsWith('x') ? ts.ScriptKind.TSX : ts.ScriptKind.TS,
  );
  const texts: { text: string; line: number }[] = [];
  const add = (node: ts.Node, text: string) =>
    void texts.push({ text, line: source.getLineAndCharacterOfPosition(node.getStart()).line + 1 });
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node)) return;
    if (ts.isJsxText(node)) add(node, `${node.text} `);
    else if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node))
      add(node, /^[A-Z]/.test(node.text) ? `${node.text} ` : node.text);
    else if (ts.isTemplateHead(node) || ts.isTemplateMiddleOrTemplateTail(node)) add(node, node.text);
    ts.forEachChild(node, visit);
  };
  visit(source);
  return texts.filter(
    ({ text }) => text.trimStart().includes(' ') && !/\b(SELECT|INSERT|UPDATE|DELETE|FROM|WHERE|JOIN|CREATE)\b/.test(text),
  );
}

test('texts people read use the glossary of docs/words.md', () => {
  const files = execFileSync('git', ['ls-files', '-co', '--exclude-standard', 'core', 'wire', 'server', 'web'], {
    encoding: 'utf8',
  })
    .split('\n')
    .filter((it) => /\.tsx?$/.test(it) && !/(\.test\.tsx?$|\/test\/|migrations\/)/.test(it));
  const found = files.flatMap((file) =>
    textsOf(file).flatMap(({ text, line }) =>
      NOT_OURS.filter(([odd]) => odd.test(text)).map(([, better]) => `${file}:${line} “${text.trim().slice(0, 60)}”: ${better}`),
    ),
  );
  expect(files.length).toBeGreaterThan(200);
  expect(found).toEqual([]);
});
