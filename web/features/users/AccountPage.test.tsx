/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import type { SessionRow } from '../../../wire/users';
import { openPage, type Replies } from '../../test/openPage';
import { type } from '../../test/typing';
import { AccountPage } from './AccountPage';

afterEach(cleanup);

const session = (id: number, own: boolean): SessionRow => ({
  id,
  beganAt: '2031-05-10T08:00:00.000Z',
  seenAt: '2031-05-12T08:00:00.000Z',
  from: `Browser ${id}, 10.0.0.${id}`,
  own,
});
const open = (replies: Replies = {}) =>
  openPage(AccountPage, '/', '/', {
    sessions: [session(1, true), session(2, false)],
    absences: { absences: [], deputies: [] } as never,
    ...replies,
  });
const submit = async () =>
  fireEvent.click(
    within(await screen.findByRole('form', { name: 'Change the password' })).getByRole('button', { name: 'Change password' }),
  );

test('a password is changed by the one there is, and is not left in the form', async () => {
  const { sent } = open({ changePassword: {} });
  await screen.findByRole('form', { name: 'Change the password' });
  type('Password now', 'old and gone by');
  type('New password', 'rain on the roof tiles');
  await submit();
  await waitFor(() => expect(sent('changePassword')).toEqual([{ old: 'old and gone by', password: 'rain on the roof tiles' }]));
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Password now').value).toBe(''));
  expect(screen.getByLabelText<HTMLInputElement>('New password').value).toBe('');
});

test('a short one is not sent; a wrong one is refused at its field', async () => {
  const message = 'This is not the password you have now';
  const { sent } = open({ changePassword: { status: 400, body: { message, faults: [{ field: 'old', message }] } } });
  await screen.findByRole('form', { name: 'Change the password' });
  type('Password now', 'wrong one');
  type('New password', 'short');
  await submit();
  await waitFor(() => expect(screen.getByLabelText('New password').getAttribute('aria-invalid')).toBe('true'));
  expect(sent('changePassword')).toEqual([]);
  type('New password', 'rain on the roof tiles');
  await submit();
  expect((await screen.findAllByText(message)).length).toBeGreaterThan(0);
  expect(screen.getByLabelText('Password now').getAttribute('aria-invalid')).toBe('true');
});

test('another session is ended from the list; one’s own is not offered', async () => {
  const { asked } = open({ endSession: {} });
  const table = within(await screen.findByRole('table', { name: 'Sessions' }));
  expect(table.getByText('this one')).toBeTruthy();
  const [end, ...others] = table.getAllByRole('button', { name: 'End' });
  expect(others).toEqual([]);
  fireEvent.click(end!);
  await waitFor(() => expect(asked.filter((it) => it.call === 'endSession')).toHaveLength(1));
});
