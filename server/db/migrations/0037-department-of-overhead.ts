import type { Migration } from './migration';

/** Overhead can be of another department than whoever worked it. */
export const departmentOfOverhead: Migration = {
  name: '0037-department-of-overhead',
  statements: [
    'ALTER TABLE time_line ADD COLUMN department_id INTEGER REFERENCES department(id)',
    'CREATE INDEX time_line_of_department_id ON time_line (department_id) WHERE department_id IS NOT NULL',
  ],
};
