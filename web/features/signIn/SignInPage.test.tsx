/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import type { Session } from '../../../wire/company';
import { openPage } from '../../test/openPage';
import { type } from '../../test/typing';
import { SignInPage } from './SignInPage';

afterEach(cleanup);

const session = (more: Partial<Session> = {}): Session => ({
  user: null,
  needsOwner: false,
  demo: [],
  company: null,
  newestMonth: null,
  closedTo: null,
  today: '2031-05-12',
  jobCount: 0,
  sendsMail: false,
  troubles: [],
  ...more,
});
const page = (more: Partial<Session> = {}) =>
  function Page() {
    return <SignInPage session={session(more)} />;
  };

test('a code is asked for where there is a second device, with what was typed kept; a wrong password says so', async () => {
  const replies = [{ status: 401, body: { message: 'Name or password is not right' } }, { code: true }, { code: false }];
  const { sent } = openPage(page(), '/', '/', { signIn: () => replies.shift() as never });
  await screen.findByRole('form', { name: 'Sign in' });
  const press = () => fireEvent.click(screen.getByRole('button', { name: 'Sign in' }));
  press();
  expect(await screen.findByText('Enter your password')).toBeTruthy();
  expect(sent('signIn')).toEqual([]);
  type('Name or e-mail', 'Ann Ash');
  type('Password', 'rain on the roof tiles');
  press();
  expect(await screen.findByText('Name or password is not right')).toBeTruthy();
  press();
  await screen.findByLabelText('Code');
  type('Code', '123456');
  press();
  await waitFor(() => expect(sent('signIn')).toHaveLength(3));
  expect(sent('signIn').at(-1)).toEqual({ who: 'Ann Ash', password: 'rain on the roof tiles', code: '123456' });
});

test('the first of all becomes the owner, by a password that is long enough', async () => {
  const { sent } = openPage(page({ needsOwner: true }), '/', '/', { makeOwner: {} });
  await screen.findByRole('form', { name: 'Owner' });
  type('Your name', 'Ann Ash');
  type('E-mail', 'a@x.example');
  type('Password', 'short');
  const press = () => fireEvent.click(screen.getByRole('button', { name: 'Become the owner' }));
  press();
  await waitFor(() => expect(screen.getByLabelText('Password').getAttribute('aria-invalid')).toBe('true'));
  expect(sent('makeOwner')).toEqual([]);
  type('Password', 'rain on the roof tiles');
  press();
  await waitFor(() =>
    expect(sent('makeOwner')).toEqual([{ name: 'Ann Ash', email: 'a@x.example', password: 'rain on the roof tiles' }]),
  );
});
