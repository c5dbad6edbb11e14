import { fireEvent, screen, waitFor } from '@testing-library/react';

/** The cell of a grid under a title, in a row counted from 1, once it is there. */
export const cell = (title: string, row: number) => screen.findByLabelText<HTMLInputElement>(`${title}, row ${row}`);

/** Types into a cell of a grid, and leaves it. */
export async function put(title: string, row: number, text: string): Promise<void> {
  const input = await cell(title, row);
  fireEvent.focus(input);
  fireEvent.change(input, { target: { value: text } });
  fireEvent.blur(input);
}

/** Types into a field, and leaves it. */
export function type(label: string, text: string): void {
  fireEvent.change(screen.getByLabelText(label), { target: { value: text } });
  fireEvent.blur(screen.getByLabelText(label));
}

/** Opens a list, which is fetched when the first one is touched, and takes one of it. */
export async function choose(label: string, option: string | RegExp): Promise<void> {
  fireEvent.pointerDown(await screen.findByRole('combobox', { name: label }), { button: 0 });
  const taken = await waitFor(() => {
    const box = screen.queryByRole('combobox', { name: label });
    if (box && screen.queryAllByRole('option').length === 0) fireEvent.keyDown(box, { key: 'Enter' });
    return screen.getByRole('option', { name: option });
  });
  fireEvent.keyDown(taken, { key: 'Enter' });
}
