import { expect, test } from '@jest/globals';
import { likelyJobs, likelyTask, type RowOfTask, type Task } from './likelyTasks';

const task = (text: string): Task => {
  const [job = '', section = '', costCode = ''] = text.split('/');
  return { job, section, costCode };
};
const row = (employee: string, text = ''): RowOfTask => ({ employee, ...task(text) });
const before = {
  tasks: new Map([
    ['ANN', ['J2/Roof/310', 'J1/Core/100', 'J1/Core/200'].map(task)],
    ['BEN', [task('J1/Core/100')]],
  ]),
  teams: new Map([
    ['CAL', ['J3']],
    ['ANN', ['J1', 'J4']],
    ['DEE', ['J1', 'J3']],
  ]),
};

test('a row is of what its employee worked on last and has not on the sheet yet, and of what stands above it', () => {
  const of = (...rows: RowOfTask[]) => likelyTask(rows, rows.length - 1, before);
  expect(of(row('ANN'))).toEqual(task('J2/Roof/310'));
  expect(of(row('ANN', 'J2/Roof/310'), row('ANN'))).toEqual(task('J1/Core/100'));
  // With a crew on J1, what Ann did there.
  expect(of(row('BEN', 'J1/Core/200'), row('ANN'))).toEqual(task('J1/Core/100'));
  expect(of(row('ANN', 'J1//200'))).toEqual(task('J1/Core/200'));
  // All of Ben's work is on the sheet: the job above, with its work where a job is the same.
  expect(of(row('BEN', 'J1/Core/100'), row('BEN'))).toEqual(task('J1/Core/100'));
  expect(of(row('ANN', 'J9/East/400'), row('CAL'))).toEqual(task('J9/East/400'));
  expect(of(row('ANN', 'J9/East/400'), row('CAL', 'J3'))).toEqual({ job: 'J3' });
  // Nobody's history: the one team; of two teams, none.
  expect([of(row('CAL')), of(row('DEE')), of(row('NEW'))]).toEqual([{ job: 'J3' }, null, null]);
  expect(likelyJobs(row('ANN'), before)).toEqual(['J2', 'J1', 'J4']);
});
