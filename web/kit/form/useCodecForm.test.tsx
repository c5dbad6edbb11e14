/** @jest-environment jsdom */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { amount, day, optional, whole, words } from '../typed/codecs';
import { anyUnsaved, leaveFor } from '../unsaved';
import { useCodecForm } from './useCodecForm';

const FIELDS = {
  on: day('2031-04'),
  amount: amount(2),
  days: optional(whole('days'), null),
  reason: words('Enter a reason'),
};
type Sent = { on: string; amount: number; days: number | null; reason: string };

afterEach(cleanup);

function Form({ send }: { send: (values: Sent) => Promise<unknown> }) {
  const form = useCodecForm(
    FIELDS,
    { on: '', amount: '', days: '', reason: '' },
    { fieldOf: (it) => it.replace(/^lines\./, '') },
  );
  return (
    <form onSubmit={form.submit(send, (error) => error as never)} noValidate>
      {form.input('on', 'On')}
      {form.input('amount', 'Amount')}
      {form.input('days', 'Days')}
      {form.input('reason', 'Reason')}
      {form.refused && <p role="alert">{form.refused}</p>}
      <button>Send</button>
    </form>
  );
}

/** A server takes a moment. */
const answered = () => new Promise((done) => setTimeout(done, 20));

const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label);
const fill = (label: string, text: string) => {
  fireEvent.change(field(label), { target: { value: text } });
  fireEvent.blur(field(label));
};
const faultOf = (label: string) => document.getElementById(field(label).getAttribute('aria-describedby') ?? '')?.textContent;

test('nothing is sent while a field cannot be read, and each says why; then it is sent as read', async () => {
  const sent: Sent[] = [];
  render(<Form send={async (values) => sent.push(values)} />);
  fill('Amount', '12,50');
  fireEvent.click(screen.getByRole('button', { name: 'Send' }));
  await waitFor(() => expect(faultOf('Reason')).toBe('Enter a reason'));
  expect([faultOf('On'), faultOf('Amount'), faultOf('Days'), sent]).toEqual([
    'Enter a date, e.g. 30 Apr 2031',
    '"12,50" is not a valid amount; enter one such as 12,500.00',
    undefined,
    [],
  ]);
  fill('On', '30');
  fill('Amount', '1250');
  fill('Reason', ' Twice booked ');
  await waitFor(() => expect([field('On').value, field('Amount').value]).toEqual(['30 Apr 2031', '1,250.00']));
  fireEvent.click(screen.getByRole('button', { name: 'Send' }));
  await waitFor(() => expect(sent).toEqual([{ on: '2031-04-30', amount: 125_000, days: null, reason: 'Twice booked' }]));
});

test('what is refused stands at the field it names, else beside the form, and what was typed stays', async () => {
  const refusals = [
    { message: 'Refused', faults: [{ field: 'lines.amount', message: 'More than is open' }] },
    { message: 'The month is closed', faults: [] },
  ];
  render(<Form send={() => answered().then(() => Promise.reject(refusals.shift()))} />);
  fill('On', '2031-04-01');
  fill('Amount', '10');
  fill('Reason', 'Paid');
  fireEvent.click(screen.getByRole('button', { name: 'Send' }));
  await waitFor(() => expect(faultOf('Amount')).toBe('More than is open'));
  // Read out where it stands, and said once.
  expect(screen.getAllByRole('alert').map((it) => it.textContent)).toEqual(['More than is open']);
  fill('Amount', '9');
  fireEvent.click(screen.getByRole('button', { name: 'Send' }));
  await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('The month is closed'));
  expect([field('Amount').value, field('Reason').value]).toEqual(['9.00', 'Paid']);
});

test('what is typed and not sent is told, so that leaving it is asked about; refused it is told again, taken it is not', async () => {
  const replies = [Promise.reject({ message: 'The month is closed', faults: [] }), Promise.resolve()];
  const told: boolean[] = [];
  const send = () => {
    told.push(anyUnsaved());
    return answered().then(() => replies.shift());
  };
  void replies[0]?.catch(() => undefined);
  render(<Form send={send} />);
  let left = 0;
  const leave = () => leaveFor(() => (left += 1));
  leave();
  expect([left, anyUnsaved()]).toEqual([1, false]);
  fill('On', '30');
  fill('Amount', '10');
  fill('Reason', 'Paid');
  await waitFor(() => expect(anyUnsaved()).toBe(true));
  leave();
  expect(left).toBe(1);
  fireEvent.click(screen.getByRole('button', { name: 'Send' }));
  await waitFor(() => expect(screen.getByRole('alert').textContent).toBe('The month is closed'));
  await waitFor(() => expect(anyUnsaved()).toBe(true));
  fireEvent.click(screen.getByRole('button', { name: 'Send' }));
  // While it is sent, and once it is taken, the page may be left.
  await waitFor(() => expect(replies).toEqual([]));
  await waitFor(() => expect(anyUnsaved()).toBe(false));
  expect(told).toEqual([false, false]);
});

test('a fault goes with the key that mends it, before the field is left', async () => {
  render(<Form send={async () => undefined} />);
  fireEvent.focus(field('Reason'));
  fireEvent.blur(field('Reason'));
  await waitFor(() => expect(faultOf('Reason')).toBe('Enter a reason'));
  fireEvent.change(field('Reason'), { target: { value: 'T' } });
  await waitFor(() => expect(faultOf('Reason')).toBeUndefined());
});
