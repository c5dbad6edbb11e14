/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { useState } from 'react';
import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { ApplicationView } from '../../../wire/billing';
import { APPLICATION } from '../../test/application';
import { openPage, type Asked, type Replies } from '../../test/openPage';
import { cell, put } from '../../test/typing';
import { ApplicationDraft } from './ApplicationDraft';

afterEach(() => {
  cleanup();
  localStorage.clear();
});

const DRAFT = { ...APPLICATION, status: 'draft', reference: 'A2', retentionWords: '', journal: null } as ApplicationView;
let version = 4;
const saving = (): { version: number } => ({ version: (version += 1) });
const open = (replies: Replies = {}) => {
  version = 4;
  const Page = () => <ApplicationDraft view={DRAFT} />;
  return openPage(Page, '/', '/', { saveApplication: saving as never, submitApplication: {}, deleteApplication: {}, ...replies });
};

const saved = (asked: readonly Asked[]) => asked.filter((it) => it.call === 'saveApplication').map((it) => it.body);
const lines = (first: number, second: number) => [
  { line: '1', work: first, materials: 0 },
  { line: '2', work: second, materials: 0 },
];

test('one cell typed, the others and what is payable follow; it is saved by itself, once, with the version it was opened at', async () => {
  const { asked } = open();
  await put('% to date', 1, '60');
  // 60 % of 3,000.00 is 1,800.00, 300.00 more: 285.00 after retention, 57.00 tax.
  expect((await cell('Work to date', 1)).value).toBe('1,800.00');
  expect(screen.getByRole('button', { name: 'Submit, 1,482.00' })).toBeDefined();
  await waitFor(() => expect(saved(asked)).toHaveLength(1), { timeout: 3000 });
  expect(saved(asked)).toEqual([{ version: 4, dated: '2031-04-22', reference: 'A2', lines: lines(180_000, 150_000) }]);
  await put('Work to date', 2, '1600');
  await waitFor(() => expect(saved(asked)).toHaveLength(2), { timeout: 3000 });
  expect(saved(asked).at(-1)).toMatchObject({ version: 5, lines: lines(180_000, 160_000) });
});

test('one percentage for the whole contract stands on every line, and stays as it was where it is none', async () => {
  const { asked } = open();
  const whole = await screen.findByLabelText('All lines, %');
  fireEvent.change(whole, { target: { value: '101' } });
  fireEvent.click(screen.getByRole('button', { name: 'Set' }));
  expect(await screen.findByText('Enter a percentage from 0 to 100')).toBeDefined();
  expect((await cell('% to date', 1)).value).toBe('50');
  fireEvent.change(whole, { target: { value: '37.5' } });
  fireEvent.click(screen.getByRole('button', { name: 'Set' }));
  // 37.5 % of 3,000.00 each.
  await waitFor(async () => expect((await cell('Work to date', 1)).value).toBe('1,125.00'));
  expect((await cell('Work to date', 2)).value).toBe('1,125.00');
  await waitFor(() => expect(saved(asked).at(-1)).toMatchObject({ lines: lines(112_500, 112_500) }), { timeout: 3000 });
});

test('what cannot be read or is too much stays in its cell, is not saved and stops the submitting', async () => {
  const { asked, sent } = open();
  await put('Work to date', 1, '3000.01');
  const wrong = await cell('Work to date', 1);
  expect([wrong.value, wrong.getAttribute('aria-invalid')]).toEqual(['3,000.01', 'true']);
  // Said where it was typed, and not once more at the percentage that follows from it.
  expect((await cell('% to date', 1)).getAttribute('aria-invalid')).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: /^Submit/ }));
  expect((await screen.findByRole('alert')).textContent).toContain('would pass its scheduled value by 0.01');
  await new Promise((done) => setTimeout(done, 900));
  expect([saved(asked), sent('submitApplication')]).toEqual([[], []]);
});

test('submitting saves what was typed last before it is sent on', async () => {
  const { asked, sent } = open();
  await put('% to date', 2, '100');
  fireEvent.click(screen.getByRole('button', { name: /^Submit/ }));
  await waitFor(() => expect(sent('submitApplication')).toHaveLength(1));
  const calls = asked.map((it) => it.call).filter((it) => it.endsWith('Application'));
  expect([calls, saved(asked)]).toEqual([
    ['saveApplication', 'submitApplication'],
    [{ version: 4, dated: '2031-04-22', reference: 'A2', lines: lines(150_000, 300_000) }],
  ]);
});

test('saved by somebody else meanwhile: it says so, nothing is sent on, and what was typed is still there', async () => {
  const message = 'Application 2 was saved by Ines meanwhile';
  const { sent } = open({ saveApplication: { status: 409, body: { message } } });
  await put('% to date', 1, '70');
  fireEvent.click(screen.getByRole('button', { name: /^Submit/ }));
  expect((await screen.findByRole('alert')).textContent).toContain(message);
  expect([(await cell('% to date', 1)).value, sent('submitApplication')]).toEqual(['70', []]);
});

test('a line that comes in between by a change approved meanwhile moves no amount that was typed', async () => {
  const [first, second] = DRAFT.lines;
  let show: (view: ApplicationView) => void = () => {};
  const Page = () => {
    const [view, setView] = useState(DRAFT);
    show = setView;
    return <ApplicationDraft view={view} />;
  };
  version = 4;
  const { asked } = openPage(Page, '/', '/', { saveApplication: saving as never });
  await put('Work to date', 2, '1600');
  act(() => show({ ...DRAFT, lines: [first!, { ...second!, line: 'X', work: 0, previousWork: 0 }, second!] }));
  expect([(await cell('Work to date', 2)).value, (await cell('Work to date', 3)).value]).toEqual(['', '1,600.00']);
  await waitFor(() => expect(saved(asked).length).toBeGreaterThan(0), { timeout: 3000 });
  expect(saved(asked).at(-1)).toMatchObject({
    lines: [
      { line: '1', work: 150_000 },
      { line: 'X', work: 0 },
      { line: '2', work: 160_000 },
    ],
  });
});

test('what is typed while a save is under way goes with the next, over what that one saved', async () => {
  const answers: (() => void)[] = [];
  const { asked } = open({
    saveApplication: (() => new Promise((done) => answers.push(() => done(saving())))) as never,
  });
  await put('Work to date', 1, '1600');
  await waitFor(() => expect(saved(asked)).toHaveLength(1), { timeout: 3000 });
  await put('Work to date', 1, '1700');
  await new Promise((done) => setTimeout(done, 900));
  expect(saved(asked)).toHaveLength(1);
  act(() => answers[0]!());
  await waitFor(() => expect(saved(asked)).toHaveLength(2), { timeout: 3000 });
  expect(saved(asked)[1]).toMatchObject({ version: 5, lines: lines(170_000, 150_000) });
  expect(screen.queryByRole('alert')).toBeNull();
  act(() => answers[1]!());
});

test('a valuation date that is none is said at once; a short one is written out when it is left', async () => {
  open();
  const day = await screen.findByLabelText<HTMLInputElement>('Valuation date');
  fireEvent.change(day, { target: { value: '31/2' } });
  expect(screen.getByText('Enter a date, e.g. 30 Apr 2031')).toBeDefined();
  fireEvent.change(day, { target: { value: '28' } });
  fireEvent.blur(day);
  expect(day.value).toBe('28 Apr 2031');
});

test('where the client never certifies it is billed in one act, with what was typed last and what that posts in sight', async () => {
  const view = { ...DRAFT, client: 'NORTH', neverCertifies: true };
  version = 4;
  const Page = () => <ApplicationDraft view={view} />;
  const { asked, sent } = openPage(Page, '/', '/', {
    saveApplication: saving as never,
    previewBill: {
      summary: DRAFT.summary,
      journal: { dated: '2031-05-12', lines: [] } as never,
      invoice: 47,
      dueOn: '2031-05-30',
    },
    billApplication: { postingId: 9 },
  });
  expect(await screen.findByText(/Invoice 47, due 30 May 2031. NORTH never certifies/)).toBeDefined();
  await put('% to date', 1, '60');
  fireEvent.click(screen.getByRole('button', { name: 'Bill it, 1,482.00' }));
  await waitFor(() => expect(sent('billApplication')).toEqual([{ version: 5, on: '2031-04-30' }]));
  const calls = asked.map((it) => it.call).filter((it) => it.endsWith('Application'));
  expect([calls, saved(asked)[0]]).toEqual([
    ['saveApplication', 'billApplication'],
    expect.objectContaining({ version: 4, lines: lines(180_000, 150_000) }),
  ]);
  expect(screen.getByRole('button', { name: 'Submit, without billing it yet' })).toBeDefined();
});
