/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { canBeRemoved, NARROWED_ROLES, PART_NAMES, PARTS } from '../../../core/rights/parts';
import { openPage } from '../../test/openPage';
import { RolesPage } from './RolesPage';

afterEach(cleanup);

test('a part is removed from a role and given back; every part that can be removed is offered, and no other', async () => {
  const { sent } = openPage(RolesPage, '/', '/', {
    narrowing: { seen: 'as they were', removed: [{ part: 'report:wip', role: 'manager' }] },
    saveNarrowing: {},
  });
  const box = (part: keyof typeof PARTS, role: string) =>
    screen.getByLabelText<HTMLInputElement>(`${PARTS[part].title}: ${role}`);
  await screen.findByRole('table', { name: 'Roles' });
  const offered = PART_NAMES.flatMap((part) => NARROWED_ROLES.filter((role) => canBeRemoved({ part, role })));
  expect(screen.getAllByRole('checkbox')).toHaveLength(offered.length);
  expect([box('report:wip', 'manager').checked, box('report:wip', 'accountant').checked]).toEqual([false, true]);
  fireEvent.click(box('report:wip', 'accountant'));
  fireEvent.click(box('report:wip', 'manager'));
  expect(screen.getByText('1 removed')).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Save roles' }));
  await waitFor(() =>
    expect(sent('saveNarrowing')).toEqual([{ seen: 'as they were', removed: [{ part: 'report:wip', role: 'accountant' }] }]),
  );
});
