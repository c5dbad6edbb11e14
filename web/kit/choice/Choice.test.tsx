/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, configure, fireEvent, render, screen, within } from '@testing-library/react';
import { useState } from 'react';
import { Choice } from './Choice';

afterEach(cleanup);
// The list is fetched when it is first touched, which takes its time beside other tests.
configure({ asyncUtilTimeout: 15_000 });

const TYPES = [['', 'Type: all'], 'labour', ['material', 'Material']] as const;

function Example() {
  const [type, setType] = useState<'' | 'labour' | 'material'>('');
  return (
    <>
      <Choice aria-label="Type" value={type} options={TYPES} onChange={setType} />
      <output>{`chosen: ${type}`}</output>
    </>
  );
}

const choice = () => screen.getByRole('combobox', { name: 'Type' });
const expanded = async () => {
  const list = await screen.findByRole('listbox');
  return within(list)
    .getAllByRole('option')
    .map((it) => it.textContent);
};

test('says the title of what is chosen, and one press opens all titles, the empty choice among them', async () => {
  render(<Example />);
  expect(choice().textContent).toBe('Type: all');
  fireEvent.pointerDown(choice(), { button: 0 });
  expect(await expanded()).toEqual(['Type: all', 'labour', 'Material']);
});

test('reached by the keyboard it keeps the focus, opens by Enter and takes what Enter is pressed on', async () => {
  render(<Example />);
  choice().focus();
  await screen.findByText('Type: all', { selector: '[data-state] *' });
  expect(document.activeElement).toBe(choice());
  fireEvent.keyDown(choice(), { key: 'Enter' });
  await expanded();
  fireEvent.keyDown(screen.getByRole('option', { name: 'Material' }), { key: 'Enter' });
  expect(screen.getByText('chosen: material')).toBeDefined();
  expect(choice().textContent).toBe('Material');
});

test('a typed letter chooses without opening, and the empty choice can be taken again', async () => {
  render(<Example />);
  choice().focus();
  await screen.findByText('Type: all', { selector: '[data-state] *' });
  fireEvent.keyDown(choice(), { key: 'l' });
  expect(screen.getByText('chosen: labour')).toBeDefined();
  fireEvent.keyDown(choice(), { key: 'Enter' });
  await expanded();
  fireEvent.keyDown(screen.getByRole('option', { name: 'Type: all' }), { key: 'Enter' });
  expect(screen.getByText('chosen:')).toBeDefined();
});
