/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { openPage } from '../../test/openPage';
import { put } from '../../test/typing';
import { ApprovalRulesPage } from './ApprovalRulesPage';

afterEach(cleanup);

test('a rule is typed in a row and sent over what was seen; one that cannot be read is not sent', async () => {
  const { sent } = openPage(ApprovalRulesPage, '/', '/', {
    approvalRules: { seen: 'as they were', rules: [{ kind: 'transfer', above: 100_000, role: 'accountant' }] },
    saveApprovalRules: {},
  });
  const saved = await screen.findByRole<HTMLButtonElement>('button', { name: 'Saved' });
  expect(saved.disabled).toBe(true);
  await put('Act', 2, 'reversing a certification');
  await put('Above, GBP', 2, 'much');
  await put('Approved by', 2, 'owner');
  const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save rules' });
  expect(save().disabled).toBe(true);
  await put('Above, GBP', 2, '2,500');
  await waitFor(() => expect(save().disabled).toBe(false));
  fireEvent.click(save());
  await waitFor(() =>
    expect(sent('saveApprovalRules')).toEqual([
      {
        seen: 'as they were',
        rules: [
          { kind: 'transfer', above: 100_000, role: 'accountant' },
          { kind: 'uncertify', above: 250_000, role: 'owner' },
        ],
      },
    ]),
  );
});
