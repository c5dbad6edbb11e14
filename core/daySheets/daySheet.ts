import { stableText } from '../lists/stableText';
import type { Hours, Quantity } from '../money/rate';
import type { PayClass } from '../labour/payClass';

/** What can be charged to the client outside the schedule of values. `signature`: the number of the signature it stands under; 0 for none. */
interface Chargeable {
  charged: boolean;
  signature: number;
}

/** Hours of one person on one task. */
export interface DayHours extends Chargeable {
  /** By code. */
  employee: string;
  section: string;
  costCode: string;
  workKind: string;
  /** Null: split by the overtime rule. */
  pay: PayClass | null;
  hours: Hours;
  description: string;
}

/** What was installed of a task. */
export interface DayQuantity {
  section: string;
  costCode: string;
  quantity: Quantity;
  unit: string;
  description: string;
}

export interface DayEquipment extends Chargeable {
  name: string;
  hours: Hours;
  description: string;
}

export interface DaySubcontractor {
  name: string;
  headcount: number;
  description: string;
}

export interface DayDelivery extends Chargeable {
  /** Who delivered. */
  name: string;
  /** The number of the delivery note. */
  reference: string;
  description: string;
  /** SHA-256 of the picture; empty for none. */
  photo: string;
}

/** A visitor and why; who was hurt or what broke; who instructed what. */
export interface DayRemark {
  name: string;
  description: string;
}

export interface DayPhoto {
  /** SHA-256 of the picture. */
  photo: string;
  description: string;
}

/** What the client signed on the glass. */
export interface DaySignature {
  number: number;
  name: string;
  /** Of which company or office. */
  office: string;
  signedOn: string;
  /** Strokes of a field of 1000 × 400: points `x,y` apart by spaces, strokes apart by `;`. */
  strokes: string;
}

/** What a day sheet says, beside its job, its day and its crew. */
export interface DaySheet {
  weather: string;
  notes: string;
  hours: DayHours[];
  quantities: DayQuantity[];
  equipment: DayEquipment[];
  subcontractors: DaySubcontractor[];
  deliveries: DayDelivery[];
  visitors: DayRemark[];
  incidents: DayRemark[];
  instructions: DayRemark[];
  photos: DayPhoto[];
  signatures: DaySignature[];
}

/** The parts of a day sheet that are lists, in the order they are shown. */
export const DAY_LISTS = [
  'hours',
  'quantities',
  'equipment',
  'subcontractors',
  'deliveries',
  'visitors',
  'incidents',
  'instructions',
  'photos',
  'signatures',
] as const satisfies readonly (keyof DaySheet)[];
export type DayList = (typeof DAY_LISTS)[number];
/** Lists whose rows are entries; a signature stands for itself. */
export const ENTRY_KINDS = DAY_LISTS.filter((it) => it !== 'signatures');
export const DAY_TEXTS = ['weather', 'notes'] as const;

/** Parts with entries the client can be charged for. */
export const CHARGEABLE = ['hours', 'equipment', 'deliveries'] as const satisfies readonly DayList[];

export const EMPTY_DAY: DaySheet = {
  weather: '',
  notes: '',
  hours: [],
  quantities: [],
  equipment: [],
  subcontractors: [],
  deliveries: [],
  visitors: [],
  incidents: [],
  instructions: [],
  photos: [],
  signatures: [],
};

/** Entries marked to be charged, of a signature or, for 0, those that nobody has signed yet. */
export function chargedEntries(day: DaySheet, signature: number): Pick<DaySheet, (typeof CHARGEABLE)[number]> {
  const of = <Row extends Chargeable>(rows: readonly Row[]) => rows.filter((it) => it.charged && it.signature === signature);
  return { hours: of(day.hours), equipment: of(day.equipment), deliveries: of(day.deliveries) };
}

/** The sheet with what is marked and not signed yet put under a signature, which gets the next number. */
export function withSignature(day: DaySheet, signature: Omit<DaySignature, 'number'>): DaySheet {
  const number = Math.max(0, ...day.signatures.map((it) => it.number)) + 1;
  const under = <Row extends Chargeable>(rows: readonly Row[]) =>
    rows.map((it) => (it.charged && it.signature === 0 ? { ...it, signature: number } : it));
  return {
    ...day,
    hours: under(day.hours),
    equipment: under(day.equipment),
    deliveries: under(day.deliveries),
    signatures: [...day.signatures, { ...signature, number }],
  };
}

/**
 * What is wrong between what was signed and what is sent: a signature, and what stands under it, stays as it was signed.
 * By part; empty where nothing is.
 */
export function brokenSignatures(before: DaySheet, after: DaySheet): DayList[] {
  const signed = (day: DaySheet, part: (typeof CHARGEABLE)[number]) =>
    day[part]
      .filter((it) => it.signature > 0)
      .map((it) => stableText(it))
      .sort();
  const numbers = new Map(before.signatures.map((it) => [it.number, stableText(it)]));
  const broken: DayList[] = CHARGEABLE.filter((part) => {
    const known = (text: string) => numbers.has((JSON.parse(text) as Chargeable).signature);
    return stableText(signed(before, part)) !== stableText(signed(after, part).filter(known));
  });
  const stored = after.signatures.filter((it) => numbers.get(it.number) === stableText(it)).length;
  return stored === before.signatures.length ? broken : [...broken, 'signatures'];
}

/** Puts hours on a task for several people: each gets a row, or more hours on the one that is there and not signed. */
export function withCrewHours(
  rows: readonly DayHours[],
  employees: readonly string[],
  task: Omit<DayHours, 'employee' | 'signature'>,
): DayHours[] {
  const alike = (it: DayHours, employee: string) =>
    it.employee === employee &&
    it.signature === 0 &&
    (['section', 'costCode', 'workKind', 'pay', 'description', 'charged'] as const).every((key) => it[key] === task[key]);
  const added = rows.map((it) => (employees.some((who) => alike(it, who)) ? { ...it, hours: it.hours + task.hours } : it));
  const missing = employees.filter((who) => !rows.some((it) => alike(it, who)));
  return [...added, ...missing.map((employee) => ({ ...task, employee, signature: 0 }))];
}

/** Hours added up. */
export function sumHours(rows: readonly { hours: Hours }[]): Hours {
  return rows.reduce((sum, it) => sum + it.hours, 0);
}
