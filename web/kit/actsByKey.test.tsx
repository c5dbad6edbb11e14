/** @jest-environment ./web/test/pageEnvironment.js */
import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { actByKey, actFailed, watchHands } from './actsByKey';

let stop = () => {};
beforeEach(() => {
  stop = watchHands();
  render(
    <>
      <input aria-label="beside" />
      <form data-grave>
        <input aria-label="within" />
        <button type="button">Certify</button>
      </form>
    </>,
  );
  fireEvent.pointerDown(document.body);
});
afterEach(() => {
  stop();
  cleanup();
});

test('after an act, the key does nothing until something was typed, chosen or pressed', () => {
  const act = jest.fn();
  for (let i = 0; i < 3; i++) actByKey(act);
  expect(act).toHaveBeenCalledTimes(1);
  // The key itself, held or pressed again, is no typing.
  fireEvent.keyDown(document.body, { key: 'Enter', altKey: true });
  fireEvent.keyDown(document.body, { key: 'Alt', altKey: true });
  actByKey(act);
  expect(act).toHaveBeenCalledTimes(1);
  fireEvent.input(screen.getByLabelText('beside'), { target: { value: '5' } });
  actByKey(act);
  expect(act).toHaveBeenCalledTimes(2);
});

test('a grave act is done by key only out of its own form, in which something was typed or chosen since the last act', () => {
  const [act, certify] = [jest.fn(), jest.fn()];
  const button = screen.getByRole('button', { name: 'Certify' });
  actByKey(act);
  actByKey(certify, button);
  fireEvent.input(screen.getByLabelText('beside'), { target: { value: '5' } });
  actByKey(certify, button);
  expect(certify).not.toHaveBeenCalled();
  fireEvent.input(screen.getByLabelText('within'), { target: { value: '5' } });
  actByKey(certify, button);
  actByKey(certify, button);
  expect(certify).toHaveBeenCalledTimes(1);
  // Refused or without a reply, it may be asked for again, once.
  actFailed();
  actByKey(certify, button);
  actByKey(certify, button);
  expect(certify).toHaveBeenCalledTimes(2);
});
