import { createBrowserRouter, Link, Navigate, useRouteError } from 'react-router';
import { AnswerPage } from '../features/answer/AnswerPage';
import { ApplicationPage } from '../features/billing/ApplicationPage';
import { BillingPage } from '../features/billing/BillingPage';
import { JobBilling } from '../features/billing/JobBilling';
import { TransfersPart } from '../features/budget/TransfersPart';
import { ChangePage, NewChangePage } from '../features/changes/ChangePage';
import { ChangeRegisterPage } from '../features/changes/ChangeRegisterPage';
import { JobChangesPage } from '../features/changes/JobChangesPage';
import { CostEntryPage } from '../features/costs/CostEntryPage';
import { CostLedgerPage, JobCosts } from '../features/costs/CostLedgerPage';
import { AwardPage } from '../features/estimates/award/AwardPage';
import { BesidePage } from '../features/estimates/BesidePage';
import { EstimatePage } from '../features/estimates/EstimatePage';
import { EstimatesPage } from '../features/estimates/EstimatesPage';
import { JobContract } from '../features/jobs/JobContract';
import { JobListPage } from '../features/jobs/list/JobListPage';
import { JobNext } from '../features/jobs/JobNext';
import { JobPage } from '../features/jobs/JobPage';
import { NewJobPage } from '../features/jobs/newJob/NewJobPage';
import { ChangeFiles } from '../features/jobFile/ChangeFiles';
import { JobFilePage } from '../features/jobFile/JobFilePage';
import { PostedDocumentPage } from '../features/ledger/PostedDocumentPage';
import { JobDocuments, PostedDocumentsPage } from '../features/ledger/PostedDocumentsPage';
import { TieOutPage } from '../features/ledger/TieOutPage';
import { TrialBalancePage } from '../features/ledger/TrialBalancePage';
import { BillingSchedulePage } from '../features/instalments/BillingSchedulePage';
import { BuildUpsPage } from '../features/prices/BuildUpsPage';
import { PriceBookPage } from '../features/prices/PriceBookPage';
import { PriceItemsPage } from '../features/prices/PriceItemsPage';
import { PlanPage } from '../features/plan/PlanPage';
import { OutboxPage } from '../features/quotations/OutboxPage';
import { QuotationPage } from '../features/quotations/QuotationPage';
import { QuotationsPart } from '../features/quotations/QuotationsPart';
import { TermsPage } from '../features/quotations/TermsPage';
import { AgeingPage } from '../features/reports/AgeingPage';
import { EstimateVsActualPage, JobBudget } from '../features/reports/EstimateVsActual';
import { WorkInProgressPage } from '../features/reports/WorkInProgressPage';
import { SetUpPage } from '../features/company/SetUpPage';
import { WelcomePage } from '../features/company/WelcomePage';
import { Shell } from './Shell';
import { WithCompany } from './WithCompany';

function NotHere() {
  return (
    <div className="page">
      <h1>Nothing is kept at this address</h1>
      <p>
        <Link to="/jobs">Go to the jobs</Link>
      </p>
    </div>
  );
}

function Broken() {
  const error = useRouteError();
  return (
    <div className="page">
      <h1>This page has a fault</h1>
      <p>
        Nothing that was posted is lost. Reload the page; if it happens again, tell whoever looks after Ledrin this:{' '}
        {error instanceof Error ? error.message : 'no message'}
      </p>
      <p>
        <a href="/jobs">Go to the jobs</a>
      </p>
    </div>
  );
}

export const router = createBrowserRouter([
  { path: '/answer/:token', element: <AnswerPage />, errorElement: <Broken /> },
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { path: '/', element: <WelcomePage /> },
      {
        element: <WithCompany />,
        children: [
          { path: '/jobs', element: <JobListPage /> },
          { path: '/jobs/new', element: <NewJobPage /> },
          {
            path: '/jobs/:number',
            element: <JobPage />,
            children: [
              { index: true, element: <JobNext /> },
              {
                path: 'estimates',
                element: (
                  <>
                    <EstimatesPage />
                    <QuotationsPart />
                  </>
                ),
              },
              { path: 'quotations/:quotation', element: <QuotationPage /> },
              { path: 'estimates/beside/:left/:right', element: <BesidePage /> },
              { path: 'estimates/:estimate', element: <EstimatePage /> },
              { path: 'estimates/:estimate/award', element: <AwardPage /> },
              { path: 'contract', element: <JobContract /> },
              {
                path: 'budget',
                element: (
                  <>
                    <JobBudget />
                    <TransfersPart />
                  </>
                ),
              },
              { path: 'changes', element: <JobChangesPage /> },
              { path: 'changes/new', element: <NewChangePage /> },
              {
                path: 'changes/:change',
                element: <ChangePage attachments={<ChangeFiles />} />,
              },
              { path: 'costs', element: <JobCosts /> },
              { path: 'billing', element: <JobBilling /> },
              { path: 'billing/schedule', element: <BillingSchedulePage /> },
              { path: 'billing/:application', element: <ApplicationPage /> },
              { path: 'postings', element: <JobDocuments /> },
              { path: 'file', element: <JobFilePage /> },
              { path: 'plan', element: <PlanPage /> },
            ],
          },
          { path: '/costs', element: <CostEntryPage /> },
          { path: '/costs/ledger', element: <CostLedgerPage /> },
          { path: '/billing', element: <BillingPage /> },
          { path: '/reports', element: <Navigate to="/reports/work-in-progress" replace /> },
          { path: '/reports/work-in-progress', element: <WorkInProgressPage /> },
          { path: '/reports/estimate-versus-actual', element: <EstimateVsActualPage /> },
          { path: '/reports/ageing', element: <AgeingPage /> },
          { path: '/reports/changes', element: <ChangeRegisterPage /> },
          { path: '/ledger', element: <TrialBalancePage /> },
          { path: '/ledger/tie-out', element: <TieOutPage /> },
          { path: '/ledger/postings', element: <PostedDocumentsPage /> },
          { path: '/ledger/postings/:id', element: <PostedDocumentPage /> },
          { path: '/set-up', element: <SetUpPage /> },
          { path: '/set-up/terms', element: <TermsPage /> },
          { path: '/set-up/outbox', element: <OutboxPage /> },
          {
            element: <PriceBookPage />,
            children: [
              { path: '/set-up/prices', element: <PriceItemsPage /> },
              { path: '/set-up/build-ups', element: <BuildUpsPage /> },
            ],
          },
        ],
      },
      { path: '*', element: <NotHere /> },
    ],
  },
]);
