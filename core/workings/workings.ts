import type { PlainDate } from '../calendar/plainDate';
import type { Place } from '../places/place';

/** A figure that can be opened; `job`, `line`, `application`, `sovLine` and `release` say of what. */
export interface FigureRef {
  figure: string;
  job?: string;
  /** Cost line id. */
  line?: number;
  application?: number;
  sovLine?: string;
  release?: string;
  /** The day it is of, where that is not the day of the page: an application's own. */
  on?: PlainDate;
}

export type FigureUnit = 'money' | 'percent' | 'hours' | 'quantity' | 'unit-cost' | 'text';

/** One thing a figure is worked from, its value, and where that in turn comes from. */
export interface Operand {
  label: string;
  /** Minor units, millionths, ten-thousandths of an hour, of a unit or of the currency, or words: as `unit` says. */
  value: number | string;
  unit: FigureUnit;
  /** How the value is written where its unit would round off what is needed to follow it. */
  shown?: string;
  /** How it enters the figure: +, −, ×, ÷ or nothing. */
  sign: string;
  /** Opens its own workings. */
  figure?: FigureRef;
  /** Leads to the entries or the posting behind it. */
  to?: Place;
}

/** How a figure explains itself: the rule in words, the operands, the result. */
export interface Workings {
  title: string;
  /** What it is the figure of. */
  subject: string;
  rule: string;
  operands: Operand[];
  result: number;
  unit: FigureUnit;
  /** Leads to all the entries behind it at once. */
  entries?: Place;
}

type Ways = Pick<Operand, 'figure' | 'to'>;

export function money(label: string, value: number, sign = '', ways: Ways = {}): Operand {
  return { label, value, unit: 'money', sign, ...ways };
}

export function percent(label: string, value: number, sign = '', ways: Ways = {}): Operand {
  return { label, value, unit: 'percent', sign, ...ways };
}

export function hours(label: string, value: number, sign = '', ways: Ways = {}): Operand {
  return { label, value, unit: 'hours', sign, ...ways };
}

export function quantity(label: string, value: number, sign = '', ways: Ways = {}): Operand {
  return { label, value, unit: 'quantity', sign, ...ways };
}

export function words(label: string, value: string): Operand {
  return { label, value, unit: 'text', sign: '' };
}
