import type { Plugin } from 'vite';

interface Node {
  type: string;
  start: number;
  end: number;
}
interface Property extends Node {
  key?: { name?: string };
  value: Node;
}
interface Statement extends Node {
  declaration?: Statement | null;
  declarations?: (Node & { init: Node | null })[];
}

const MADE: ReadonlySet<string> = new Set(['CallExpression', 'ObjectExpression']);
const IN_WIRE = /\/wire\/\w+\.ts$/;
/** What of a call the pages never look at: the server alone checks what is sent. */
const CHECKED: ReadonlySet<string | undefined> = new Set(['query', 'input']);

/** Every node of a tree. */
function* nodesOf(tree: unknown): Generator<Node> {
  if (Array.isArray(tree)) for (const it of tree) yield* nodesOf(it);
  else if (typeof tree === 'object' && tree !== null) {
    if (typeof (tree as Node).type === 'string') yield tree as Node;
    for (const it of Object.values(tree)) yield* nodesOf(it);
  }
}

/** The schemas that calls are declared with. */
function schemasOf(program: unknown): Node[] {
  return [...nodesOf(program)].flatMap((it) => {
    if (it.type !== 'CallExpression') return [];
    const [, options] = (it as Node & { arguments: (Node & { properties?: Property[] })[] }).arguments;
    const of = options?.type === 'ObjectExpression' ? (options.properties ?? []) : [];
    return of.filter((one) => one.type === 'Property' && CHECKED.has(one.key?.name)).map((one) => one.value);
  });
}

/** What the constants of a module are made of by a call, or of others. */
function madeByCalls(body: readonly Statement[]): Node[] {
  const declared = body.flatMap((it) => (it.declaration ?? it).declarations ?? []);
  return declared.flatMap(({ init }) => (init && MADE.has(init.type) ? [init] : []));
}

/**
 * The pages are built with the paths of the calls alone: the schemas of what is sent stay on the server, and the first screen is smaller
 * by them. A page that checks something itself imports that schema, and has it.
 */
export function pathsAlone(): Plugin {
  return {
    name: 'paths-alone',
    apply: 'build',
    enforce: 'post',
    transform(code, id) {
      if (!IN_WIRE.test(id)) return null;
      const program = this.parse(code) as unknown as { body: Statement[] };
      const edits = [
        ...schemasOf(program).map(({ start, end }) => ({ start, end, text: 'null' })),
        // A schema has no effect of its own: where no page asks for it, it is left out.
        ...madeByCalls(program.body).flatMap(({ start, end }) => [
          { start, end: start, text: '/* @__PURE__ */ (() => (' },
          { start: end, end, text: '))()' },
        ]),
      ];
      let made = code;
      for (const { start, end, text } of edits.sort((a, b) => b.start - a.start))
        made = `${made.slice(0, start)}${text}${made.slice(end)}`;
      return { code: made, map: null };
    },
  };
}
