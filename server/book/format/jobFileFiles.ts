import { COST_TYPES } from '../../../core/costs/costType';
import { DUE_AT } from '../../../core/instalments/instalment';
import { MAX_INSTALMENTS } from '../../../core/instalments/layOut';
import { JOB_STATUSES } from '../../../core/jobs/jobStatus';
import { EVENT_KINDS } from '../../../wire/jobFile';
import { amount, date, integer, moment, oneOf, percent, REQUIRED, text } from './columns';

const instalmentKey = { job: text(REQUIRED), instalment: integer(1, MAX_INSTALMENTS)(REQUIRED) };

/** Files of what is saved to begin jobs and checklists from. */
export const TEMPLATE_FILES = {
  checklist_templates: { template: text(REQUIRED), item: text(REQUIRED) },
  job_templates: { template: text(REQUIRED), content: text(REQUIRED) },
};

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
  job_events: {
    job: text(REQUIRED),
    kind: oneOf(EVENT_KINDS)(REQUIRED),
    dated: date(REQUIRED),
    text: text(REQUIRED),
    noted_by: text(),
    noted_at: moment(),
  },
  job_moves: {
    job: text(REQUIRED),
    was: oneOf(JOB_STATUSES)(),
    became: oneOf([...JOB_STATUSES, 'locked', 'unlocked'])(REQUIRED),
    on_day: date(),
    reason: text(),
    moved_by: text(REQUIRED),
    moved_at: moment(REQUIRED),
  },
  job_papers: {
    job: text(REQUIRED),
    name: text(REQUIRED),
    media_type: text(REQUIRED),
    sha256: text(REQUIRED),
    about: text(),
    added_by: text(REQUIRED),
    added_at: moment(REQUIRED),
  },
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
