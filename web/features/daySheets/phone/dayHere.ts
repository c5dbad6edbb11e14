import type { PlainDate } from '../../../../core/calendar/plainDate';

/** The phone's own day, by its clock; not before `other`: what was fetched from a sample company lies ahead of every clock. */
export function dayHere(other: PlainDate): PlainDate {
  const now = new Date();
  const two = (value: number) => String(value).padStart(2, '0');
  const here = `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
  return here > other ? here : other;
}
