import type { Lists } from '../../wire/company';

/** The lists of a company that has entered nothing yet. */
export const EMPTY_LISTS: Lists = {
  clients: [],
  vendors: [],
  costCodes: [],
  jobs: [],
  people: [],
  kinds: [],
  departments: [],
  workKinds: [],
  checklists: [],
  commitments: [],
};
