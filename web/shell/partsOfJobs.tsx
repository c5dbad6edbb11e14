import type { ComponentType } from 'react';
import type { Part } from '../../core/rights/parts';
import type { Right } from '../../core/rights/rights';
import type { JobPart } from '../ground/places';

type Load = () => Promise<ComponentType>;

/** A part of a job's page, which is loaded when somebody goes there. */
export interface RegisteredPart extends JobPart {
  page: Load;
}

const part = (path: string, title: string, page: Load, who: Right | Part = 'read-jobs'): RegisteredPart => ({
  path,
  title,
  inner: false,
  page,
  who,
});
const inner = (path: string, title: string, page: Load, who: Right | Part = 'read-jobs'): RegisteredPart => ({
  path,
  title,
  inner: true,
  page,
  who,
});

/** Every part of a job's page, one line each, in the order of their number keys. */
export const JOB_PARTS: readonly RegisteredPart[] = [
  inner('', 'Summary', async () => (await import('../features/jobs/JobNext')).JobNext),
  part(
    'estimates',
    'Estimates',
    async () => (await import('./jobParts/EstimatesAndQuotations')).EstimatesAndQuotations,
    'read-tenders',
  ),
  part('contract', 'Contract', async () => (await import('../features/jobs/JobContract')).JobContract),
  part('budget', 'Cost lines', async () => (await import('./jobParts/CostLines')).CostLines),
  part('changes', 'Changes', async () => (await import('../features/changes/JobChangesPage')).JobChangesPage),
  part('costs', 'Costs', async () => (await import('../features/costs/CostLedgerPage')).JobCosts, 'report:cost-ledger'),
  part('billing', 'Billing', async () => (await import('../features/billing/JobBilling')).JobBilling),
  inner(
    'material-on-site',
    'Material on site',
    async () => (await import('../features/costs/corrections/MaterialOnSitePage')).JobMaterialOnSite,
  ),
  part('postings', 'Postings', async () => (await import('../features/ledger/PostedDocumentsPage')).JobDocuments),
  part('file', 'Job file', async () => (await import('../features/jobFile/JobFilePage')).JobFilePage),
  part('plan', 'Plan', async () => (await import('../features/plan/PlanPage')).PlanPage),
  part('charging', 'Charged', async () => (await import('../features/charging/JobChargingPage')).JobChargingPage, 'read-books'),
  inner(
    'charging/:invoice',
    'Invoice of charged cost',
    async () => (await import('./jobParts/DayworkWithReceipts')).DayworkWithReceipts,
  ),
  inner('forecast', 'Forecast', async () => (await import('./jobParts/CostLines')).ToForecast, 'report:estimate-vs-actual'),
  inner('hours', 'Hours', async () => (await import('./jobParts/CostLines')).ToHours, 'report:labour-progress'),
  inner('quantities', 'Quantities', async () => (await import('./jobParts/CostLines')).ToQuantities, 'report:quantities'),
  inner(
    'wages',
    'Statement of wages',
    async () => (await import('../features/payroll/WageStatementPage')).WageStatementPage,
    'read-books',
  ),
  inner(
    'set-up',
    'Correct schedule and budget',
    async () => (await import('../features/jobs/newJob/CorrectSetupPage')).CorrectSetupPage,
  ),
  inner(
    'status',
    'Contract status',
    async () => (await import('../features/reports/JobStatusByMonth')).JobStatusByMonth,
    'report:contract-status',
  ),
  inner('quotations/:quotation', 'Quotation', async () => (await import('../features/quotations/QuotationPage')).QuotationPage),
  inner(
    'estimates/compare/:left/:right',
    'Two estimates',
    async () => (await import('../features/estimates/ComparePage')).ComparePage,
  ),
  inner('estimates/:estimate', 'Estimate', async () => (await import('../features/estimates/EstimatePage')).EstimatePage),
  inner('estimates/:estimate/award', 'Award', async () => (await import('../features/estimates/award/AwardPage')).AwardPage),
  inner('changes/new', 'New change order', async () => (await import('../features/changes/ChangePage')).NewChangePage),
  inner('changes/:change', 'Change order', async () => (await import('./jobParts/ChangeWithAttachments')).ChangeWithAttachments),
  inner(
    'billing/schedule',
    'Billing schedule',
    async () => (await import('../features/instalments/BillingSchedulePage')).BillingSchedulePage,
  ),
  inner(
    'billing/:application',
    'Application for payment',
    async () => (await import('../features/billing/ApplicationPage')).ApplicationPage,
  ),
];
