/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { act, cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { openPage } from '../test/openPage';
import { api, useWaitingQuery } from './api/api';
import { store } from './api/store';
import { showWith } from '../kit/toast';
import { faultOf } from './faults';
import { Loaded } from './Loaded';
import { useStanding } from './useStanding';

afterEach(cleanup);

function Page() {
  const waiting = useWaitingQuery();
  return (
    <Loaded of={waiting} what="what waits">
      {(rows) => <input aria-label={`Typed over ${rows.length}`} />}
    </Loaded>
  );
}
function Standing() {
  const { data, error } = useStanding(useWaitingQuery());
  return error ? <p role="alert">{faultOf(error).message}</p> : data ? <input aria-label="Typed" /> : null;
}
const readAgain = () => act(() => void store.dispatch(api.util.invalidateTags(['books'])));

test('read again in vain, a page stays with what is typed; refused, it is gone; the reason is said, and it can be tried again', async () => {
  let status = 200;
  openPage(Page, '/', '/', {
    waiting: () => (status === 200 ? [] : { status, body: { message: `Refused with ${status}` } }),
  });
  const typed = await screen.findByLabelText<HTMLInputElement>('Typed over 0');
  fireEvent.change(typed, { target: { value: '12' } });
  status = 503;
  readAgain();
  expect((await screen.findByRole('alert')).textContent).toContain('Refused with 503');
  expect(screen.getByLabelText<HTMLInputElement>('Typed over 0').value).toBe('12');
  status = 200;
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  await waitFor(() => expect(screen.queryByRole('alert')).toBeNull());
  expect(screen.getByLabelText<HTMLInputElement>('Typed over 0').value).toBe('12');
  status = 403;
  readAgain();
  expect((await screen.findByRole('alert')).textContent).toContain('Refused with 403');
  expect(screen.queryByLabelText('Typed over 0')).toBeNull();
});

test('a page that asks by itself stays as well, and the corner says that it could not be read again', async () => {
  const said: string[] = [];
  showWith(({ message, how }) => said.push(`${message} · ${how.action?.label}`));
  let status = 200;
  openPage(Standing, '/', '/', {
    waiting: () => (status === 200 ? [] : { status, body: { message: `Refused with ${status}` } }),
  });
  fireEvent.change(await screen.findByLabelText('Typed'), { target: { value: '12' } });
  status = 500;
  readAgain();
  await waitFor(() => expect(said).toEqual(['Refused with 500 · Read again']));
  expect(screen.getByLabelText<HTMLInputElement>('Typed').value).toBe('12');
  status = 404;
  readAgain();
  expect((await screen.findByRole('alert')).textContent).toBe('Refused with 404');
});
