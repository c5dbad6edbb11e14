import type { DayList, DaySheet } from '../../../../../core/daySheets/daySheet';

/** Parts of a day sheet that are entered row by row. */
export const ROW_PARTS = [
  'quantities',
  'equipment',
  'subcontractors',
  'deliveries',
  'visitors',
  'incidents',
  'instructions',
] as const satisfies readonly DayList[];
export type RowPart = (typeof ROW_PARTS)[number];

/** How one cell of a row is entered. */
export interface RowField {
  key: string;
  label: string;
  kind: 'text' | 'long' | 'hours' | 'quantity' | 'count' | 'task' | 'photo' | 'charged';
}

interface RowLook {
  add: string;
  fields: readonly RowField[];
  empty: DaySheet[RowPart][number];
}

const CHARGE = { charged: false, signature: 0 };
const longField = (label: string): RowField => ({ key: 'description', label, kind: 'long' });
const who = (label: string): RowField => ({ key: 'name', label, kind: 'text' });
const charged: RowField = { key: 'charged', label: 'To be charged to the client', kind: 'charged' };

export const ROWS: Readonly<Record<RowPart, RowLook>> = {
  quantities: {
    add: 'Add what was installed',
    fields: [
      { key: 'task', label: 'Task', kind: 'task' },
      { key: 'quantity', label: 'Quantity', kind: 'quantity' },
      { key: 'unit', label: 'Unit', kind: 'text' },
    ],
    empty: { section: '', costCode: '', quantity: 0, unit: '', description: '' },
  },
  equipment: {
    add: 'Add equipment',
    fields: [who('Equipment'), { key: 'hours', label: 'Hours', kind: 'hours' }, charged],
    empty: { name: '', hours: 0, description: '', ...CHARGE },
  },
  subcontractors: {
    add: 'Add a subcontractor',
    fields: [who('Company'), { key: 'headcount', label: 'People', kind: 'count' }, longField('Doing what')],
    empty: { name: '', headcount: 1, description: '' },
  },
  deliveries: {
    add: 'Add a delivery',
    fields: [
      who('From'),
      { key: 'reference', label: 'Number of the delivery note', kind: 'text' },
      longField('What'),
      { key: 'photo', label: 'Photo of the delivery note', kind: 'photo' },
      charged,
    ],
    empty: { name: '', reference: '', description: '', photo: '', ...CHARGE },
  },
  visitors: { add: 'Add a visitor', fields: [who('Who'), longField('Why')], empty: { name: '', description: '' } },
  incidents: { add: 'Add an incident', fields: [who('Who'), longField('What happened')], empty: { name: '', description: '' } },
  instructions: {
    add: 'Add an instruction',
    fields: [who('Who said it'), longField('What')],
    empty: { name: '', description: '' },
  },
};
