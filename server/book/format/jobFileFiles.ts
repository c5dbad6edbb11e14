import { COST_TYPES } from '../../../core/cost/costType';
import { DUE_AT } from '../../../core/instalments/instalment';
import { MOST_INSTALMENTS } from '../../../core/instalments/layOut';
import { EVENT_KINDS } from '../../../wire/jobFile';
import { amount, date, integer, oneOf, percent, REQUIRED, text } from './columns';

const instalmentKey = { job: text(REQUIRED), instalment: integer(1, MOST_INSTALMENTS)(REQUIRED) };

/** Files of what is known of a job beside its figures. */
export const JOB_FILE_FILES = {
  job_people: {
    job: text(REQUIRED),
    side: oneOf(['client', 'team'])(REQUIRED),
    name: text(REQUIRED),
    role: text(),
    email: text(),
    phone: text(),
  },
  job_events: { job: text(REQUIRED), kind: oneOf(EVENT_KINDS)(REQUIRED), dated: date(REQUIRED), text: text(REQUIRED) },
  job_sections: {
    job: text(REQUIRED),
    section: text(REQUIRED),
    starts_on: date(),
    finishes_on: date(),
    started_on: date(),
    finished_on: date(),
  },
  cost_plan: {
    job: text(REQUIRED),
    section: text(),
    cost_code: text(REQUIRED),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    starts_on: date(REQUIRED),
    finishes_on: date(REQUIRED),
  },
  billing_instalments: {
    ...instalmentKey,
    name: text(REQUIRED),
    due: oneOf(DUE_AT)(),
    day: date(),
    days: integer(-3650, 3650)(),
    taken_from: oneOf(['stages', 'job'])(),
    percent: percent(),
    amount: amount(),
  },
  instalment_stages: { ...instalmentKey, section: text(REQUIRED) },
  job_checklist: { job: text(REQUIRED), item: text(REQUIRED), person: text(), due_on: date(), done_on: date() },
};
