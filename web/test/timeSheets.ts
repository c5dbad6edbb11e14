import type { SheetLine, TimeLists } from '../../wire/weekSheets';

/** One employee, and nothing else to choose. */
export const TIME_LISTS: TimeLists = {
  employees: [{ employee: 'E1', name: 'Ann Ash', wageClass: '', startsOn: null, endsOn: null }],
  jobs: [],
  costCodes: [],
  workKinds: [],
  departments: [],
  rules: [],
  me: null,
};

/** Eight hours of one day, submitted. */
export const sheetLine = (id: number, more: Partial<SheetLine> = {}): SheetLine => ({
  id,
  line: String(id),
  employee: 'E1',
  dated: '2031-04-21',
  postedOn: '2031-04-21',
  job: 'J1',
  section: '',
  costCode: '100',
  workKind: '',
  department: '',
  wageClass: '',
  pay: null,
  hours: 80_000,
  units: null,
  description: '',
  clock: '',
  charge: '',
  state: 'submitted' as const,
  returned: '',
  reverses: null,
  reversedBy: null,
  split: false,
  ...more,
});
