/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { movesFrom } from '../../../core/life/life';
import { USER_LIFE, type UserState } from '../../../core/users/userLife';
import type { UserRow } from '../../../wire/users';
import { openPage, type Replies } from '../../test/openPage';
import { choose, type } from '../../test/typing';
import { UsersPage } from './UsersPage';
import { EMPTY_LISTS } from '../../test/emptyLists';

afterEach(cleanup);

const user = (id: number, name: string, state: UserState): UserRow => ({
  id,
  name,
  email: `${id}@x.example`,
  role: 'accountant',
  allJobs: false,
  closed: state === 'closed',
  state,
  can: movesFrom(USER_LIFE, state),
  seen: `as ${name} was`,
  invitedUntil: state === 'invited' ? '2031-05-19' : null,
  seenAt: null,
  sessions: 0,
});
const lists = {
  ...EMPTY_LISTS,
  people: ['Ben Birch'],
};
const open = (replies: Replies = {}) =>
  openPage(UsersPage, '/', '/', {
    users: [user(1, 'Ann Ash', 'signs in'), user(2, 'Cyd Elm', 'closed')],
    signInFailures: [],
    lists,
    ...replies,
  });

test('somebody is invited, and the link is shown once; the form begins again, filled with nothing', async () => {
  const { sent } = open({ inviteUser: { link: 'http://ledrin.test/invitation/abc' } });
  fireEvent.click(await screen.findByRole('button', { name: 'Invite somebody' }));
  type('Name', 'Ben Birch');
  type('E-mail', 'b@x.example');
  await choose('Role', 'manager');
  fireEvent.click(screen.getByLabelText(/Sees every job/));
  fireEvent.click(screen.getByRole('button', { name: 'Make the invitation' }));
  await waitFor(() =>
    expect(sent('inviteUser')).toEqual([{ name: 'Ben Birch', email: 'b@x.example', role: 'manager', allJobs: true }]),
  );
  const link = await screen.findByLabelText<HTMLInputElement>('Invitation link');
  expect(link.value).toBe('http://ledrin.test/invitation/abc');
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe(''));
});

test('a new link is offered where the account is open; a refused change keeps what was typed, and says why at its field', async () => {
  const message = 'Ann Ash is the last owner who signs in; make somebody else an owner first';
  const { sent } = open({ saveUser: { status: 400, body: { message, faults: [{ field: 'role', message }] } } });
  fireEvent.click(await screen.findByRole('button', { name: 'Cyd Elm' }));
  expect(await screen.findByRole('form', { name: 'Change Cyd Elm' })).toBeTruthy();
  expect(screen.queryByRole('button', { name: /Make a new link/ })).toBeNull();
  fireEvent.click(screen.getByRole('button', { name: 'Ann Ash' }));
  const form = within(await screen.findByRole('form', { name: 'Change Ann Ash' }));
  expect(screen.getByRole('button', { name: 'Make a new link for Ann Ash' })).toBeTruthy();
  type('E-mail', 'ann@x.example');
  fireEvent.click(form.getByLabelText(/^Closed/));
  fireEvent.click(form.getByRole('button', { name: 'Save' }));
  expect((await screen.findAllByText(message)).length).toBeGreaterThan(0);
  expect(sent('saveUser')).toEqual([
    { name: 'Ann Ash', email: 'ann@x.example', role: 'accountant', allJobs: false, closed: true, seen: 'as Ann Ash was' },
  ]);
  expect(form.getByLabelText<HTMLInputElement>('E-mail').value).toBe('ann@x.example');
});

test('a phone that was lost is signed out by whoever manages users, at a second press', async () => {
  const { asked } = open({ users: [{ ...user(2, 'Cyd Elm', 'signs in'), role: 'site', sessions: 2 }], endUserSessions: {} });
  fireEvent.click(await screen.findByRole('button', { name: 'Cyd Elm' }));
  fireEvent.click(await screen.findByRole('button', { name: 'End 2 sessions' }));
  fireEvent.click(await screen.findByRole('button', { name: /^End 2 sessions/ }));
  await waitFor(() =>
    expect(asked.filter((it) => it.call === 'endUserSessions').map((it) => it.path)).toEqual(['/api/users/2/sessions']),
  );
});
