/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { PlacesProvider } from '../ground/places';
import { openPage } from '../test/openPage';
import { PART_WORDS, PLACE_WORDS } from './actWords';
import { CommandDoor } from './CommandDoor';
import { JOB_PARTS } from './partsOfJobs';
import { PLACES } from './places';

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

test('acts are found by their common words, and every word leads to a place that is there', async () => {
  const Page = () => (
    <PlacesProvider value={{ places: PLACES, jobParts: JOB_PARTS }}>
      <CommandDoor onOpen={() => undefined} />
    </PlacesProvider>
  );
  openPage(Page, '/', '/', { lists: LISTS });
  const box = await screen.findByRole('combobox');
  const first = {
    receipt: 'Billing register',
    payment: 'Billing register',
    retention: 'Billing register',
    statement: 'Ageing',
    budget: 'Estimate versus actual',
    backup: 'Set-up',
  };
  for (const [word, title] of Object.entries(first)) {
    fireEvent.change(box, { target: { value: word } });
    await waitFor(() => expect([word, screen.getByRole('option', { selected: true }).textContent]).toEqual([word, title]));
  }
  const paths = PLACES.map((it) => it.path);
  expect(Object.keys(PLACE_WORDS).filter((it) => !paths.includes(it))).toEqual([]);
  expect(Object.keys(PART_WORDS).filter((it) => !JOB_PARTS.some(({ path }) => path === it))).toEqual([]);
});
