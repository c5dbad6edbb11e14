import { contractToWorkInProgress } from './0001-contract-to-work-in-progress';
import { priceToAward } from './0002-price-to-award';
import { changesAndTransfers } from './0003-changes-and-transfers';
import { quotationsAndOffers } from './0004-quotations-and-offers';
import { jobFile } from './0005-job-file';
import { jobTemplates } from './0006-job-templates';
import { sectionsAndPlan } from './0007-sections-and-plan';
import { instalments } from './0008-instalments';
import { plainNames } from './0009-plain-names';
import { costText } from './0010-cost-text';
import { invoicesAndAccountingDates } from './0011-invoices-and-accounting-dates';
import { correctionsByEntry } from './0012-corrections-by-entry';
import { certificationReversed } from './0013-certification-reversed';
import { endsOfJobsAndClosedMasters } from './0014-ends-of-jobs-and-closed-masters';
import { companyIdentityAndInvoiceNumbers } from './0015-company-identity-and-invoice-numbers';
import { chosenOptionsAndDelivery } from './0016-chosen-options-and-delivery';
import { people } from './0017-people';
import { users } from './0018-users';
import { approvals } from './0019-approvals';
import { restrictedAndNarrowed } from './0020-restricted-and-narrowed';
import { labour } from './0021-labour';
import { weekSheets } from './0022-week-sheets';
import { payroll } from './0023-payroll';
import { daySheets } from './0024-day-sheets';
import { wageClasses } from './0025-wage-classes';
import { indexForEachReference } from './0026-index-for-each-reference';
import { cancelledInvoices } from './0027-cancelled-invoices';
import { signInsAndDay } from './0028-sign-ins-and-day';
import { refusalsRead } from './0029-refusals-read';
import { closedUpToADay } from './0030-closed-up-to-a-day';
import { newReportsAsTheirLike } from './0031-new-reports-as-their-like';
import { estimatePatterns } from './0035-estimate-patterns';
import { reminders } from './0036-reminders';
import { departmentOfOverhead } from './0037-department-of-overhead';
import { charging } from './0038-charging';
import { handOversUndoneAndDaysOnSite } from './0034-hand-overs-undone-and-days-on-site';
import { clientsThatNeverCertify } from './0033-clients-that-never-certify';
import { kindsOfJobAndDepartments } from './0032-kinds-of-job-and-departments';
import type { Migration } from './migration';

/** Every migration, in order. Add new ones at the end; never change one that has shipped. */
export const MIGRATIONS: readonly Migration[] = [
  contractToWorkInProgress,
  priceToAward,
  changesAndTransfers,
  quotationsAndOffers,
  jobFile,
  jobTemplates,
  sectionsAndPlan,
  instalments,
  plainNames,
  costText,
  invoicesAndAccountingDates,
  correctionsByEntry,
  certificationReversed,
  endsOfJobsAndClosedMasters,
  companyIdentityAndInvoiceNumbers,
  chosenOptionsAndDelivery,
  people,
  users,
  approvals,
  restrictedAndNarrowed,
  labour,
  weekSheets,
  payroll,
  daySheets,
  wageClasses,
  indexForEachReference,
  cancelledInvoices,
  signInsAndDay,
  refusalsRead,
  closedUpToADay,
  newReportsAsTheirLike,
  kindsOfJobAndDepartments,
  clientsThatNeverCertify,
  handOversUndoneAndDaysOnSite,
  estimatePatterns,
  reminders,
  departmentOfOverhead,
  charging,
];
