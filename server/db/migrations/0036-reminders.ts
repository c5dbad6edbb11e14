import type { Migration } from './migration';

/** Whom of the users was reminded that hours of somebody are not handed in, by week. */
export const reminders: Migration = {
  name: '0036-reminders',
  statements: [
    `CREATE TABLE reminder (id INTEGER PRIMARY KEY, week TEXT NOT NULL,
      employee_id INTEGER NOT NULL REFERENCES employee(id) ON DELETE CASCADE,
      user_id INTEGER NOT NULL REFERENCES user(id) ON DELETE CASCADE,
      reminded_by TEXT NOT NULL, reminded_at TEXT NOT NULL, UNIQUE (week, employee_id))`,
    'CREATE INDEX reminder_employee ON reminder (employee_id)',
    'CREATE INDEX reminder_user ON reminder (user_id)',
  ],
};
