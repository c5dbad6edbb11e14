/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { SureButton } from './SureButton';

afterEach(cleanup);

test('the first press asks, the second does it; left in between, it asks again', () => {
  const onSure = jest.fn();
  render(<SureButton onSure={onSure}>Delete draft</SureButton>);
  const press = () => fireEvent.click(screen.getByRole('button'));
  press();
  expect(screen.getByRole('button').textContent).toBe('Delete draft permanently?');
  fireEvent.blur(screen.getByRole('button'));
  press();
  expect(onSure).not.toHaveBeenCalled();
  press();
  expect(onSure).toHaveBeenCalledTimes(1);
  expect(screen.getByRole('button').textContent).toBe('Delete draft');
});
