import type { ComponentType } from 'react';
import { present } from '../../core/errors/known';
import type { Part } from '../../core/rights/parts';
import type { Right } from '../../core/rights/rights';
import type { Place } from '../ground/places';

type Load = () => Promise<ComponentType>;

/** A place with its page, which is loaded when somebody goes there. */
export interface RegisteredPlace extends Place {
  page: Load;
}

/** What the places of a band are offered to, where they do not say otherwise. */
const BAND_RIGHTS: Readonly<Record<string, Right>> = {
  Tenders: 'read-tenders',
  Jobs: 'read-jobs',
  Costs: 'read-jobs',
  Billing: 'read-jobs',
  Reports: 'read-jobs',
  Ledger: 'read-books',
  'Set-up': 'set-up',
};

const place = (
  band: string,
  path: string,
  title: string,
  page: Load,
  { inRow = true, who }: { inRow?: boolean; who?: Right | Part } = {},
): RegisteredPlace => ({
  path,
  title,
  band,
  inRow,
  page,
  who: who ?? present(BAND_RIGHTS[band]),
});
const hidden = (band: string, path: string, title: string, page: Load, who?: Right) =>
  place(band, path, title, page, { inRow: false, ...(who ? { who } : {}) });

/** Every place, one line each: router, band, second rows and command box are made from it. The order of the bands is the order of the work. */
export const PLACES: readonly RegisteredPlace[] = [
  place('Tenders', '/tenders', 'Tenders', async () => (await import('../features/tenders/TendersPage')).TendersPage),
  hidden(
    'Tenders',
    '/tenders/new',
    'New tender',
    async () => (await import('../features/jobs/newJob/NewJobPage')).NewTenderPage,
    'manage-jobs',
  ),
  place(
    'Tenders',
    '/tenders/prices',
    'Price list',
    async () => (await import('../features/prices/PriceItemsPage')).PriceItemsPage,
  ),
  place('Tenders', '/tenders/build-ups', 'Build-ups', async () => (await import('../features/prices/BuildUpsPage')).BuildUpsPage),
  place(
    'Tenders',
    '/tenders/hours',
    'Hours a unit',
    async () => (await import('../features/labour/AchievedHoursPage')).AchievedHoursPage,
  ),
  place(
    'Tenders',
    '/tenders/quotations',
    'Quotations',
    async () => (await import('../features/tenders/SentQuotationsPage')).SentQuotationsPage,
  ),
  place('Tenders', '/tenders/terms', 'Terms', async () => (await import('../features/quotations/TermsPage')).TermsPage),
  place('Tenders', '/tenders/outbox', 'Outbox', async () => (await import('../features/quotations/OutboxPage')).OutboxPage),
  place('Jobs', '/jobs', 'Jobs', async () => (await import('../features/jobs/list/JobListPage')).JobListPage),
  hidden(
    'Jobs',
    '/jobs/new',
    'New job',
    async () => (await import('../features/jobs/newJob/NewJobPage')).NewJobPage,
    'manage-jobs',
  ),
  place('Costs', '/costs', 'Enter costs', async () => (await import('../features/costs/CostEntryPage')).CostEntryPage, {
    who: 'post-costs',
  }),
  place('Costs', '/costs/ledger', 'Cost ledger', async () => (await import('../features/costs/CostLedgerPage')).CostLedgerPage, {
    who: 'report:cost-ledger',
  }),
  place(
    'Costs',
    '/costs/material-on-site',
    'Material on site',
    async () => (await import('../features/costs/corrections/MaterialOnSitePage')).MaterialOnSitePage,
  ),
  place(
    'Costs',
    '/costs/time',
    'Week sheets',
    async () => (await import('../features/weekSheets/WeekRegisterPage')).WeekRegisterPage,
    { who: 'enter-time' },
  ),
  hidden(
    'Costs',
    '/costs/time/new',
    'New week sheet',
    async () => (await import('../features/weekSheets/WeekSheetPage')).NewWeekSheetPage,
    'enter-time',
  ),
  hidden(
    'Costs',
    '/costs/time/person',
    'My week',
    async () => (await import('../features/weekSheets/PersonWeekPage')).PersonWeekPage,
    'enter-time',
  ),
  hidden(
    'Costs',
    '/costs/time/post',
    'Post time',
    async () => (await import('../features/weekSheets/PostTimePage')).PostTimePage,
    'post-costs',
  ),
  hidden(
    'Costs',
    '/costs/time/sheets/:sheet',
    'Week sheet',
    async () => (await import('../features/weekSheets/WeekSheetPage')).WeekSheetPage,
    'enter-time',
  ),
  place(
    'Costs',
    '/costs/day-sheets',
    'Day sheets',
    async () => (await import('../features/daySheets/DayRegisterPage')).DayRegisterPage,
    { who: 'enter-time' },
  ),
  hidden(
    'Costs',
    '/costs/day-sheets/:job/:dated/:crew',
    'Day sheet',
    async () => (await import('../features/daySheets/DaySheetPage')).DaySheetPage,
    'enter-time',
  ),
  place(
    'Costs',
    '/costs/payroll',
    'Payroll hand-over',
    async () => (await import('../features/payroll/PayrollPages')).PayrollHandOverPage,
    { who: 'post-costs' },
  ),
  hidden(
    'Costs',
    '/costs/payroll/:run',
    'Payroll hand-over',
    async () => (await import('../features/payroll/PayrollPages')).PayrollRunPage,
    'post-costs',
  ),
  hidden(
    'Costs',
    '/costs/correct',
    'Correct costs',
    async () => (await import('../features/costs/corrections/CorrectCostsPage')).CorrectCostsPage,
    'correct-costs',
  ),
  place('Billing', '/billing', 'Billing register', async () => (await import('../features/billing/BillingPage')).BillingPage, {
    who: 'report:billing-register',
  }),
  place('Billing', '/billing/unbilled', 'Unbilled', async () => (await import('../features/charging/UnbilledPage')).UnbilledPage),
  place(
    'Reports',
    '/reports/work-in-progress',
    'Work in progress',
    async () => (await import('../features/reports/WorkInProgressPage')).WorkInProgressPage,
    { who: 'report:wip' },
  ),
  place(
    'Reports',
    '/reports/estimate-versus-actual',
    'Estimate versus actual',
    async () => (await import('../features/reports/EstimateVsActual')).EstimateVsActualPage,
    { who: 'report:estimate-vs-actual' },
  ),
  place(
    'Reports',
    '/reports/hours',
    'Hours by task',
    async () => (await import('../features/labour/HoursPages')).HoursByCodePage,
    { who: 'report:labour-progress' },
  ),
  place(
    'Reports',
    '/reports/people',
    'People at work',
    async () => (await import('../features/labour/PeopleAtWorkPage')).PeopleAtWorkPage,
    { who: 'approve-time' },
  ),
  place('Reports', '/reports/time', 'Time', async () => (await import('../features/labour/TimePages')).TimeCostPage, {
    who: 'report:time-cost',
  }),
  place('Reports', '/reports/payroll', 'Payroll', async () => (await import('../features/labour/TimePages')).PayrollPage, {
    who: 'report:payroll',
  }),
  place(
    'Reports',
    '/reports/changes',
    'Change orders',
    async () => (await import('../features/changes/ChangeRegisterPage')).ChangeRegisterPage,
    { who: 'report:change-register' },
  ),
  place('Reports', '/reports/ageing', 'Ageing', async () => (await import('../features/reports/AgeingPage')).AgeingPage, {
    who: 'report:ageing',
  }),
  place(
    'Ledger',
    '/ledger',
    'Trial balance',
    async () => (await import('../features/ledger/TrialBalancePage')).TrialBalancePage,
    { who: 'report:trial-balance' },
  ),
  place('Ledger', '/ledger/tie-out', 'Tie-out', async () => (await import('../features/ledger/TieOutPage')).TieOutPage, {
    who: 'report:tie-out',
  }),
  place(
    'Ledger',
    '/ledger/postings',
    'Posted documents',
    async () => (await import('../features/ledger/PostedDocumentsPage')).PostedDocumentsPage,
  ),
  place('Ledger', '/ledger/audit-trail', 'Audit trail', async () => (await import('../features/audit/AuditPage')).AuditPage),
  hidden(
    'Ledger',
    '/ledger/postings/:id',
    'Posted document',
    async () => (await import('../features/ledger/PostedDocumentPage')).PostedDocumentPage,
    'read-jobs',
  ),
  place('Set-up', '/set-up', 'Set-up', async () => (await import('../features/company/SetUpPage')).SetUpPage),
  place('Set-up', '/set-up/clients', 'Clients', async () => (await import('../features/masters/MastersPage')).ClientsPage),
  place('Set-up', '/set-up/vendors', 'Vendors', async () => (await import('../features/masters/MastersPage')).VendorsPage),
  place(
    'Set-up',
    '/set-up/cost-codes',
    'Cost codes',
    async () => (await import('../features/masters/MastersPage')).CostCodesPage,
  ),
  place(
    'Set-up',
    '/set-up/kinds-of-job',
    'Kinds of job',
    async () => (await import('../features/masters/MastersPage')).JobKindsPage,
  ),
  place(
    'Set-up',
    '/set-up/departments',
    'Departments',
    async () => (await import('../features/masters/MastersPage')).DepartmentsPage,
  ),
  place('Set-up', '/set-up/people', 'People', async () => (await import('../features/masters/MastersPage')).PeoplePage),
  place('Set-up', '/set-up/labour', 'Labour', async () => (await import('../features/labour/LabourListPage')).LabourListPage),
  hidden(
    'Set-up',
    '/set-up/labour/rate-finder',
    'Rate finder',
    async () => (await import('../features/labour/RateFinderPage')).RateFinderPage,
  ),
  hidden(
    'Set-up',
    '/set-up/labour/:list',
    'List of labour',
    async () => (await import('../features/labour/LabourListPage')).LabourListPage,
  ),
  place('Set-up', '/set-up/users', 'Users', async () => (await import('../features/users/UsersPage')).UsersPage, {
    who: 'manage-users',
  }),
  place('Set-up', '/set-up/roles', 'Roles', async () => (await import('../features/users/RolesPage')).RolesPage, {
    who: 'manage-users',
  }),
  place(
    'Set-up',
    '/set-up/approvals',
    'Approvals',
    async () => (await import('../features/approvals/ApprovalRulesPage')).ApprovalRulesPage,
    { who: 'manage-users' },
  ),
];

/** Bands in order, each with where it leads to: of the places that somebody is offered. */
export function bandsOf(places: readonly RegisteredPlace[]): { name: string; path: string }[] {
  const inRow = places.filter((it) => it.inRow);
  return [...new Set(inRow.map((it) => it.band))].map((name) => ({
    name,
    path: present(inRow.find((it) => it.band === name)).path,
  }));
}
