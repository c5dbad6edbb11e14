import { useLoadSampleBookMutation, useSessionQuery } from '../../ground/api/api';
import { useState } from 'react';
import { Navigate, useNavigate } from 'react-router';
import { faultOf } from '../../ground/faults';
import { hasRight } from '../../../core/rights/rights';
import { Empty, Refused, Waiting } from '../../kit/States';
import { useWithMonth } from '../../ground/asOf';
import { BookImport } from './BookImport';
import { CompanyForm } from './CompanyForm';

/** What each role opens on. */
const OPENS_ON = { owner: '/jobs', accountant: '/jobs', manager: '/jobs', estimator: '/tenders' } as const;

/** An empty database: the three ways in. A database with a company goes straight to its jobs. */
export function WelcomePage() {
  const { data: session } = useSessionQuery();
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const [naming, setNaming] = useState(false);
  const [loadSample, { isLoading, error }] = useLoadSampleBookMutation();
  if (!session) return <Waiting what="the books" />;
  const role = session.user?.role ?? 'site';
  if (role === 'site') return <Navigate to="/site" replace />;
  if (session.company && !naming) return <Navigate to={withMonth(OPENS_ON[role])} replace />;
  if (!hasRight({ role }, 'set-up')) return <Empty title="The company is not set up yet; ask the owner" />;
  const way = (title: string, text: string, children: React.ReactNode) => (
    <section className="border-t py-5 border-[var(--rule)]">
      <h2>{title}</h2>
      <p className="note mb-3 mt-1">{text}</p>
      {children}
    </section>
  );
  return (
    <div className="page max-w-[780px] pt-[48px]">
      <h1 className="text-[34px]">Get started</h1>
      <p className="mb-8 mt-2 text-[16px]">
        Ledrin keeps the books of fixed-price jobs: contract and budget, cost, progress bills with retention, estimate versus
        actual, work in progress. There are three ways to begin.
      </p>
      {way(
        'Type a first job',
        'Name the company, then set up a job with its schedule of values and budget.',
        naming ? (
          <CompanyForm company={null} verb="Go on to the first job" onSaved={() => void navigate('/jobs/new')} />
        ) : (
          <button type="button" className="button main" onClick={() => setNaming(true)}>
            Start with a first job
          </button>
        ),
      )}
      {way(
        'Import a book',
        'Choose all files of its folder: open jobs, their cost and billing, their postings. Either all of it comes in, or nothing and a list of what is wrong.',
        <BookImport onDone={() => void navigate('/jobs')} />,
      )}
      {way(
        'Look at the sample company',
        'Brackenfell Envelope Ltd, made up for this purpose: a dozen jobs and eighteen months of entries.',
        <>
          <button
            type="button"
            className="button"
            disabled={isLoading}
            onClick={() =>
              void loadSample()
                .unwrap()
                .then(
                  () => navigate('/jobs'),
                  () => undefined,
                )
            }
          >
            {isLoading ? 'Loading …' : 'Load the sample company'}
          </button>
          {error && <Refused message={faultOf(error).message} />}
        </>,
      )}
    </div>
  );
}
