/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, expect, test } from '@jest/globals';
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { openPage } from '../../test/openPage';
import { choose, type } from '../../test/typing';
import { Absences } from './Absences';

afterEach(cleanup);

test('a deputy is chosen by name, with capitals as people have them, and sent; sent, the form begins again without faults', async () => {
  const { sent } = openPage(Absences, '/', '/', {
    absences: { absences: [], deputies: ['Ann Ash', 'Ben Birch'] } as never,
    addAbsence: {},
  });
  await screen.findByRole('form', { name: 'New absence' });
  type('From', '1 Apr 2031');
  type('To', '5 Apr 2031');
  await choose('Deputy', 'Ben Birch');
  fireEvent.click(screen.getByRole('button', { name: 'Enter absence' }));
  await waitFor(() => expect(sent('addAbsence')).toEqual([{ from: '2031-04-01', to: '2031-04-05', deputy: 'Ben Birch' }]));
  await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('From').value).toBe(''));
  expect(screen.getByLabelText('From').getAttribute('aria-invalid')).not.toBe('true');
  expect(screen.queryByRole('alert')).toBeNull();
});
