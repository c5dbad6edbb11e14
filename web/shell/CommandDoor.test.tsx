/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { PlacesProvider } from '../ground/places';
import { openPage } from '../test/openPage';
import { CommandDoor } from './CommandDoor';

afterEach(cleanup);

const job = (number: string, name: string) => ({ number, name, status: 'on-site', locked: false, sections: [] });
const LISTS = {
  clients: [],
  vendors: [],
  costCodes: [],
  managers: [],
  commitments: [],
  jobs: [job('2110', 'Atrium glazing'), job('2111', 'Over-roofing')],
} as never;

test('what is typed before the box is there stays in it, not selected, with the focus: Enter goes where the letters say', async () => {
  const Page = () => (
    <PlacesProvider value={{ places: [], jobParts: [] }}>
      <CommandDoor onOpen={() => undefined} />
    </PlacesProvider>
  );
  const { address } = openPage(Page, '/', '/', { lists: LISTS });
  const first = await screen.findByRole<HTMLInputElement>('textbox', { name: 'Go to' });
  fireEvent.change(first, { target: { value: '211' } });
  const box = await screen.findByRole<HTMLInputElement>('combobox');
  expect([box.value, document.activeElement === box, box.selectionStart === box.selectionEnd]).toEqual(['211', true, true]);
  fireEvent.change(box, { target: { value: '2111' } });
  await waitFor(() => expect(screen.getByRole('option', { selected: true }).textContent).toBe('2111Over-roofing'));
  fireEvent.keyDown(box, { key: 'Enter' });
  await waitFor(() => expect(address()).toBe('/jobs/2111'));
});
