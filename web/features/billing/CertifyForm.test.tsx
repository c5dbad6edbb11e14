/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { APPLICATION } from '../../test/application';
import { openPage, type Replies } from '../../test/openPage';
import { CertifyForm } from './CertifyForm';
import { ReceiveForm, ReleaseForm } from './ReceiveForm';

afterEach(cleanup);
beforeEach(() => {
  previews = [];
});

let previews: unknown[] = [];
const open = (replies: Replies) =>
  openPage(() => <CertifyForm view={APPLICATION} onPreview={(it) => previews.push(it)} />, '/', '/', replies);

test('as applied for: the button says what becomes payable, and no line is sent', async () => {
  const { sent } = open({ certifyApplication: { postingId: 12 } });
  fireEvent.click(await screen.findByRole('button', { name: 'Certify application 2, 1,140.00' }));
  await waitFor(() => expect(sent('certifyApplication')).toEqual([{ version: 4, on: '2031-04-30', lines: [] }]));
});

test('for less on one line: what is payable follows as it is typed, and only that line is sent', async () => {
  const { sent } = open({ certifyApplication: { postingId: 12 } });
  fireEvent.click(await screen.findByRole('checkbox', { name: 'for different amounts' }));
  const cell = await screen.findByRole('textbox', { name: 'Work certified, row 2' });
  fireEvent.focus(cell);
  fireEvent.change(cell, { target: { value: '1400' } });
  fireEvent.blur(cell);
  // 100.00 less: 95.00 net of retention, 19.00 tax, so 1,026.00.
  const button = await screen.findByRole('button', { name: 'Certify application 2, 1,026.00' });
  fireEvent.click(button);
  await waitFor(() =>
    expect(sent('certifyApplication')).toEqual([
      { version: 4, on: '2031-04-30', lines: [{ line: '2', work: 140_000, materials: 0 }] },
    ]),
  );
});

test('what certifying would post is asked for as it is typed, and not while it cannot be certified so', async () => {
  const preview = { summary: {}, journal: { dated: '2031-04-30', lines: [] } } as never;
  const { sent } = open({ previewCertification: preview });
  await waitFor(() => expect(previews).toEqual([preview]));
  fireEvent.click(screen.getByRole('checkbox', { name: 'for different amounts' }));
  const cell = await screen.findByRole('textbox', { name: 'Work certified, row 2' });
  for (const typed of ['1400', 'none']) {
    fireEvent.focus(cell);
    fireEvent.change(cell, { target: { value: typed } });
    fireEvent.blur(cell);
    await waitFor(() => expect(previews).toHaveLength(typed === '1400' ? 2 : 3));
  }
  expect(sent('previewCertification')).toEqual([
    { version: 4, on: '2031-04-30', lines: [] },
    { version: 4, on: '2031-04-30', lines: [{ line: '2', work: 140_000, materials: 0 }] },
  ]);
  expect(previews.at(-1)).toBeNull();
});

test('more than a line has is not sent; a refusal of the server stands at the day, and the day stays as typed', async () => {
  const message = 'Application 2 is dated 22 Apr 2031; it cannot be certified before';
  const { sent } = open({ certifyApplication: { status: 409, body: { message, faults: [{ field: 'on', message }] } } });
  fireEvent.click(await screen.findByRole('checkbox', { name: 'for different amounts' }));
  const cell = await screen.findByRole('textbox', { name: 'Work certified, row 1' });
  const put = (text: string) => {
    fireEvent.focus(cell);
    fireEvent.change(cell, { target: { value: text } });
    fireEvent.blur(cell);
  };
  put('3000.01');
  fireEvent.click(screen.getByRole('button', { name: /^Certify/ }));
  expect((await screen.findByRole('alert')).textContent).toContain('would pass its scheduled value by 0.01');
  expect(sent('certifyApplication')).toEqual([]);
  put('1500');
  const day = screen.getByRole<HTMLInputElement>('textbox', { name: 'Certified on' });
  fireEvent.change(day, { target: { value: '1 Apr 2031' } });
  fireEvent.click(screen.getByRole('button', { name: /^Certify/ }));
  expect(await screen.findByText(message)).toBeDefined();
  expect([day.value, day.getAttribute('aria-invalid')]).toEqual(['1 Apr 2031', 'true']);
});

test('money in begins with what is open; an amount that cannot be read is not sent', async () => {
  const { sent } = openPage(() => <ReceiveForm job="2105" invoice="2" open={114_000} />, '/', '/', {
    recordReceipt: { postingId: 13 },
  });
  const amount = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Amount' });
  expect(amount.value).toBe('1,140.00');
  fireEvent.change(amount, { target: { value: 'all of it' } });
  fireEvent.submit(screen.getByRole('form', { name: 'Money received on application 2' }));
  expect(await screen.findByText('"all of it" is not a valid amount; enter one such as 12,500.00')).toBeDefined();
  fireEvent.change(amount, { target: { value: '1000' } });
  fireEvent.click(await screen.findByRole('button', { name: 'Record receipt of 1,000.00' }));
  await waitFor(() => expect(sent('recordReceipt')).toEqual([{ dated: '2031-04-30', amount: 100_000, reference: '' }]));
  // Sent, it never fills itself again: pressed once more, nothing is recorded; what remains is entered by a press of its own.
  await waitFor(() => expect(amount.value).toBe(''));
  fireEvent.click(screen.getByRole('button', { name: 'Record receipt of' }));
  expect(await screen.findByText(/is not a valid amount|Enter/)).toBeDefined();
  expect(sent('recordReceipt')).toHaveLength(1);
  fireEvent.click(screen.getByRole('button', { name: 'Remaining 1,140.00' }));
  expect(amount.value).toBe('1,140.00');
});

test('retention to be released is not filled in, and says its tax and its journal before it is invoiced', async () => {
  const { sent } = openPage(() => <ReleaseForm job="2105" held={50_000} taxName="VAT" taxRate={200_000} />, '/', '/', {
    releaseRetention: { postingId: 14 },
  });
  const amount = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Amount' });
  expect(amount.value).toBe('');
  fireEvent.change(amount, { target: { value: '250' } });
  // 20 % of 250.00 is 50.00.
  expect(await screen.findByText('VAT at 20 %: 50.00; payable 300.00.')).toBeDefined();
  expect(screen.getByRole('table').textContent).toContain('300.00');
  fireEvent.click(screen.getByRole('button', { name: 'Invoice 250.00' }));
  await waitFor(() =>
    expect(sent('releaseRetention')).toEqual([{ dated: '2031-04-30', amount: 25_000, reference: 'Retention release' }]),
  );
});
