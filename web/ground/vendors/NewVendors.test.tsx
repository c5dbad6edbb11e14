/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { openPage } from '../../test/openPage';
import { type } from '../../test/typing';
import { NewVendors } from './NewVendors';

afterEach(cleanup);

test('a vendor that is missing is added in place, under a code that is free', async () => {
  const added = jest.fn();
  const vendors = [{ code: 'SUPLIES', name: 'Other', kind: '' }];
  const Page = () => <NewVendors names={['Suplies Ltd']} vendors={vendors} onAdded={added} />;
  const { sent } = openPage(Page, '/', '/', { addMaster: {} });
  expect((await screen.findByLabelText<HTMLInputElement>('Code of Suplies Ltd')).value).toBe('SUPLIES2');
  type('Code of Suplies Ltd', 'SUP');
  fireEvent.click(screen.getByRole('button', { name: 'Add Suplies Ltd as a vendor' }));
  await waitFor(() => expect(added).toHaveBeenCalledWith('Suplies Ltd', 'SUP'));
  expect(sent('addMaster')).toMatchObject([{ code: 'SUP', name: 'Suplies Ltd', kind: '' }]);
});
