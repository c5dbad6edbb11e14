import type { Migration } from './migration';

/** Sign-ins that failed, devices somebody signed in from before, and the time zone of the company. */
export const signInsAndDay: Migration = {
  name: '0028-sign-ins-and-day',
  statements: [
    `CREATE TABLE sign_in_failure (
      id INTEGER PRIMARY KEY, at TEXT NOT NULL, who TEXT NOT NULL, user_id INTEGER REFERENCES user(id), from_where TEXT NOT NULL
    )`,
    'CREATE INDEX sign_in_failure_user ON sign_in_failure (user_id) WHERE user_id IS NOT NULL',
    'CREATE INDEX sign_in_failure_at ON sign_in_failure (at)',
    'CREATE TABLE known_device (token TEXT PRIMARY KEY, user_id INTEGER NOT NULL REFERENCES user(id), since TEXT NOT NULL)',
    'CREATE INDEX known_device_user ON known_device (user_id)',
    `ALTER TABLE company ADD COLUMN time_zone TEXT NOT NULL DEFAULT ''`,
  ],
};
