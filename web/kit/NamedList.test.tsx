/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { NamedList } from './NamedList';

afterEach(cleanup);

test('what is saved under a name is there to be taken, the same name is saved over, and one is taken away', () => {
  const taken: string[] = [];
  function Views() {
    const [names, setNames] = useState<string[]>([]);
    return (
      <NamedList
        names={names}
        empty="No views yet."
        onTake={(name) => taken.push(name)}
        removing="Forget view"
        onRemove={(name) => setNames(names.filter((it) => it !== name))}
        saving="Save this view as"
        onSave={(name) => setNames([...new Set([...names, name])])}
      />
    );
  }
  render(<Views />);
  const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save' });
  const type = (text: string) => fireEvent.change(screen.getByLabelText('Save this view as'), { target: { value: text } });
  expect([screen.getByText('No views yet.') !== null, save().disabled]).toEqual([true, true]);
  type('  ');
  expect(save().disabled).toBe(true);
  for (const name of [' Labour ', 'Roof', 'Roof']) {
    type(name);
    fireEvent.click(save());
  }
  fireEvent.click(screen.getByRole('button', { name: 'Labour' }));
  fireEvent.click(screen.getByRole('button', { name: 'Forget view Roof' }));
  expect([taken, screen.queryByText('Roof'), screen.queryByText('No views yet.')]).toEqual([['Labour'], null, null]);
});
