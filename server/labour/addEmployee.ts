import type { NewEmployee } from '../../wire/labourLists';
import { LedrinError, type Fault } from '../../core/errors/ledrinError';
import type { Command } from '../acts/command';
import { labourList, saveList } from './saveList';

/** Adds one employee to the list, with what an hour costs: as the list itself is saved. */
export async function addEmployee(command: Command, { employee, name, costsAnHour }: NewEmployee): Promise<void> {
  const { seen, rows } = await labourList(command.sql, 'employees');
  const added = {
    id: null,
    employee,
    name,
    wageClass: '',
    startsOn: null,
    endsOn: null,
    payrollNumber: '',
    department: '',
    costsAnHour,
  };
  try {
    await saveList(command, { list: 'employees', seen, ratesFrom: null, rows: [...rows, added] } as never);
  } catch (error) {
    if (!(error instanceof LedrinError)) throw error;
    const own = (it: Fault): Fault => ({ ...it, field: it.field.replace(`rows.${rows.length}.`, '') });
    throw new LedrinError(error.code, error.message, error.faults.map(own));
  }
}
