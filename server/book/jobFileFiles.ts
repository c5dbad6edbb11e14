import { COST_TYPES } from '../../core/cost/costType';
import { EVENT_KINDS } from '../../wire/jobFile';
import { date, oneOf, REQUIRED, text } from './columns';

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
  job_sections: { job: text(REQUIRED), section: text(REQUIRED), starts_on: date(), finishes_on: date() },
  cost_plan: {
    job: text(REQUIRED),
    section: text(),
    cost_code: text(REQUIRED),
    cost_type: oneOf(COST_TYPES)(REQUIRED),
    starts_on: date(REQUIRED),
    finishes_on: date(REQUIRED),
  },
  job_checklist: { job: text(REQUIRED), item: text(REQUIRED), person: text(), due_on: date(), done_on: date() },
};
