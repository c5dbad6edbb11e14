import { WEEKDAYS } from '../../../core/labour/overtime';
import { PAY_CLASSES } from '../../../core/labour/payClass';
import type { LabourList } from '../../../core/labour/lists';
import type { Lists } from '../../../wire/company';
import type { Codecs } from '../../kit/form/codecSchema';
import type { GridColumn, Offer } from '../../kit/grid/gridTypes';
import { columnsOf } from '../../kit/grid/rowCodecs';
import { day, oneOf, optional, percent, quantity, words, yes, type Codec } from '../../kit/typed/codecs';
import { unitCost } from '../../kit/typed/unitCosts';

/** An empty cell is the first weekday. */
const weekday: Codec<(typeof WEEKDAYS)[number]> = {
  ...oneOf(WEEKDAYS),
  parse: (text) => oneOf(WEEKDAYS).parse(text.trim() === '' ? WEEKDAYS[0] : text),
};

/** How the columns of each list are read; `month` completes days that are typed in short. */
export function listCodecs(month: string, digits: number): Record<LabourList, Codecs> {
  const from = day(month);
  const until = optional(day(month), null);
  const hours = optional(quantity, null);
  return {
    employees: {
      employee: words('Expected a code for the employee'),
      name: words('Expected a name'),
      wageClass: words(),
      costsAnHour: optional(unitCost(digits), null),
      startsOn: until,
      endsOn: until,
      payrollNumber: words(),
      department: words(),
    },
    'wage-classes': { wageClass: words('Expected a wage class'), description: words() },
    'work-kinds': { workKind: words('Expected a code for the kind of work'), description: words('Expected a description') },
    'pay-rates': {
      from,
      wageClass: words(),
      employee: words(),
      workKind: words(),
      job: words(),
      section: words(),
      rate: unitCost(digits),
      atLeast: yes,
    },
    'piece-rates': {
      from,
      costCode: words('Expected a cost code'),
      workKind: words(),
      rate: unitCost(digits),
      unit: words(),
      topsUp: yes,
    },
    burdens: {
      burden: words('Expected a code for the burden'),
      description: words(),
      from,
      to: until,
      job: words(),
      wageClass: words(),
      percent: optional(percent, 0),
      perHour: optional(unitCost(digits), 0),
      onPremium: yes,
    },
    'overtime-rules': { from, dailyAfter: hours, doubleAfter: hours, weeklyAfter: hours, weekStarts: weekday },
    'pay-codes': { payCode: words('Expected a pay code'), pay: oneOf(PAY_CLASSES), job: words(), workKind: words() },
    'charge-rates': {
      from,
      workKind: words(),
      employee: words(),
      wageClass: words(),
      job: words(),
      customer: words(),
      rate: unitCost(digits),
    },
  };
}

/** What cells of the lists can be chosen from. */
export interface Offered {
  lists: Pick<Lists, 'jobs' | 'clients' | 'costCodes' | 'departments'>;
  employees: readonly Offer[];
  workKinds: readonly Offer[];
  wageClasses: readonly Offer[];
}

/** What is said above each list. */
export const LIST_NOTES: Record<LabourList, string> = {
  'wage-classes':
    'What people are paid as, such as roofer or mate. Once there is a list, employees, rates, burdens and time name a class of it.',
  employees:
    'Everybody whose hours are posted. Time before the first or after the last day is refused. What somebody costs an hour is all that hours need: a first rate counts from the first day; the other lists are for what differs.',
  'work-kinds': 'Kinds of work that are paid otherwise, such as welding or work at height. Time may name one.',
  'pay-rates':
    'What an hour costs from a day on. The cells that are filled say what a rate is for. The first of these that has a rate wins; one marked at least gives way to a higher one further down:',
  'piece-rates': 'Pay for what is installed, by cost code. Where it tops up, the hours are paid if they come to more.',
  burdens:
    'What comes on top of pay, by law or by agreement: a share of it, an amount an hour, or both. The row that fits best holds.',
  'overtime-rules': 'After how many hours a day or a week hours are overtime, or double. An empty cell is no limit.',
  'pay-codes': 'What payroll calls hours of a pay class: of a job, else of a kind of work, else of any.',
  'charge-rates':
    'What a client pays for an hour that is charged, whatever its pay class, from a day on. A rate is of one kind of work, employee or wage class, and of a job, of a client or of neither. The first of these that has a rate wins; hours without one are charged at cost with the markup of their job:',
};

const text = (value: string | undefined) => (value ?? '').trim();
const YES: readonly Offer[] = [{ value: 'yes', label: '' }];

const named = ({ code, name }: { code: string; name: string }): Offer => ({ value: code, label: name });

/** The columns of a list, with what can be chosen in each. */
export function listColumns(list: LabourList, codecs: Codecs, offered: Offered): GridColumn[] {
  const jobs = () => offered.lists.jobs.map((it) => ({ value: it.number, label: it.name }));
  const sections: GridColumn['offers'] = (row) =>
    (offered.lists.jobs.find((it) => it.number === text(row.job))?.sections ?? []).map((value) => ({ value, label: '' }));
  const from = (title: string, key = 'from'): GridColumn => ({ key, title, width: 112 });
  const ofJob: GridColumn = { key: 'job', title: 'Job', width: 76, offers: jobs };
  const ofKind: GridColumn = { key: 'workKind', title: 'Kind of work', width: 100, offers: () => offered.workKinds };
  const ofClass: GridColumn = { key: 'wageClass', title: 'Wage class', width: 110, offers: () => offered.wageClasses };
  const flag = (key: string, title: string): GridColumn => ({ key, title, width: 84, offers: () => YES });
  const columns: Record<LabourList, GridColumn[]> = {
    'wage-classes': [
      { key: 'wageClass', title: 'Wage class', width: 150 },
      { key: 'description', title: 'Description', width: 'auto' },
    ],
    employees: [
      { key: 'employee', title: 'Employee', width: 96 },
      { key: 'name', title: 'Name', width: 'auto' },
      { ...ofClass, width: 120 },
      { key: 'costsAnHour', title: 'Costs an hour', width: 110 },
      from('First day', 'startsOn'),
      from('Last day', 'endsOn'),
      { key: 'payrollNumber', title: 'Payroll number', width: 120 },
      { key: 'department', title: 'Department', width: 110, offers: () => offered.lists.departments.map(named) },
    ],
    'work-kinds': [
      { key: 'workKind', title: 'Kind of work', width: 130 },
      { key: 'description', title: 'Description', width: 'auto' },
    ],
    'pay-rates': [
      from('From'),
      ofClass,
      { key: 'employee', title: 'Employee', width: 110, offers: () => offered.employees },
      ofKind,
      ofJob,
      { key: 'section', title: 'Section', width: 130, offers: sections },
      { key: 'rate', title: 'Rate an hour', width: 100 },
      flag('atLeast', 'At least'),
    ],
    'piece-rates': [
      from('From'),
      {
        key: 'costCode',
        title: 'Cost code',
        width: 110,
        offers: () => offered.lists.costCodes.map((it) => ({ value: it.code, label: it.description })),
      },
      ofKind,
      { key: 'rate', title: 'Rate for one', width: 110 },
      { key: 'unit', title: 'Unit', width: 80 },
      flag('topsUp', 'Tops up'),
    ],
    burdens: [
      { key: 'burden', title: 'Burden', width: 100 },
      { key: 'description', title: 'Description', width: 'auto' },
      from('From'),
      from('To', 'to'),
      ofJob,
      ofClass,
      { key: 'percent', title: '% of pay', width: 84 },
      { key: 'perHour', title: 'An hour', width: 84 },
      flag('onPremium', 'Also on overtime premium'),
    ],
    'overtime-rules': [
      from('From'),
      { key: 'dailyAfter', title: 'Overtime after, hours a day', width: 150 },
      { key: 'doubleAfter', title: 'Double after, hours a day', width: 150 },
      { key: 'weeklyAfter', title: 'Overtime after, hours a week', width: 150 },
      { key: 'weekStarts', title: 'Week starts on', width: 120, offers: () => WEEKDAYS.map((value) => ({ value, label: '' })) },
    ],
    'pay-codes': [
      { key: 'payCode', title: 'Pay code', width: 120 },
      { key: 'pay', title: 'Pay class', width: 110, offers: () => PAY_CLASSES.map((value) => ({ value, label: '' })) },
      ofJob,
      ofKind,
    ],
    'charge-rates': [
      from('From'),
      ofKind,
      { key: 'employee', title: 'Employee', width: 110, offers: () => offered.employees },
      ofClass,
      ofJob,
      { key: 'customer', title: 'Client', width: 110, offers: () => offered.lists.clients.map(named) },
      { key: 'rate', title: 'Charged an hour', width: 120 },
    ],
  };
  return columnsOf(codecs, columns[list]);
}
