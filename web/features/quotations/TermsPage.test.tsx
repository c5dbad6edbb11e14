/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { openPage } from '../../test/openPage';
import { type } from '../../test/typing';
import { TermsPage } from './TermsPage';

afterEach(cleanup);

test('terms are chosen, changed and saved under their name; refused, what was typed stays; removed after a second press', async () => {
  let refuse = true;
  const { sent, asked } = openPage(TermsPage, '/', '/', {
    terms: [{ name: 'Usual', body: 'Thirty days.' }],
    saveTerms: () => (refuse ? { status: 400, body: { message: 'body: expected at most 20,000 characters' } } : {}),
    removeTerms: {},
  });
  expect((await screen.findByRole<HTMLButtonElement>('button', { name: /^Save/ })).disabled).toBe(true);
  fireEvent.click(screen.getByRole('button', { name: 'Usual' }));
  expect(screen.getByLabelText<HTMLTextAreaElement>('Text').value).toBe('Thirty days.');
  type('Text', 'Fourteen days.');
  fireEvent.click(screen.getByRole('button', { name: 'Save Usual' }));
  expect(await screen.findByText('body: expected at most 20,000 characters')).toBeTruthy();
  expect(screen.getByLabelText<HTMLTextAreaElement>('Text').value).toBe('Fourteen days.');
  refuse = false;
  fireEvent.click(screen.getByRole('button', { name: 'Save Usual' }));
  await waitFor(() => expect(sent('saveTerms')).toEqual([0, 1].map(() => ({ name: 'Usual', body: 'Fourteen days.' }))));
  await waitFor(() => expect(screen.queryByText('body: expected at most 20,000 characters')).toBeNull());
  fireEvent.click(screen.getByRole('button', { name: 'Remove' }));
  expect(asked.some((it) => it.call === 'removeTerms')).toBe(false);
  fireEvent.click(screen.getByRole('button', { name: /sure|Remove/i }));
  await waitFor(() => expect(asked.filter((it) => it.call === 'removeTerms')).toHaveLength(1));
});
