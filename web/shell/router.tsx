import { createBrowserRouter, Link, Navigate, useLocation, useRouteError, type RouteObject } from 'react-router';
import { JOB_PARTS } from './partsOfJobs';
import { PLACES } from './places';
import { Shell } from './Shell';
import { WithCompany } from './WithCompany';

function NotFound() {
  return (
    <div className="page">
      <h1>Page not found</h1>
      <p>
        <Link to="/jobs">Go to the jobs</Link>
      </p>
    </div>
  );
}

function Failed() {
  const error = useRouteError();
  return (
    <div className="page">
      <h1>Something went wrong</h1>
      <p>
        Nothing that was posted is lost. Reload the page; if it happens again, send this to your administrator:{' '}
        {error instanceof Error ? error.message : 'no message'}
      </p>
      <p>
        <a href="/jobs">Go to the jobs</a>
      </p>
    </div>
  );
}

/** Leads on to another place of the product, with the month and all else that stands in the address. */
function LeadTo({ path }: { path: string }) {
  const { search } = useLocation();
  return <Navigate to={`${path}${search}`} replace />;
}

const lazy = (page: (typeof PLACES)[number]['page']) => async () => ({ Component: await page() });
const jobParts: RouteObject[] = JOB_PARTS.map(({ path, page }) =>
  path === '' ? { index: true, lazy: lazy(page) } : { path, lazy: lazy(page) },
);

export const router = createBrowserRouter([
  {
    path: '/answer/:token',
    lazy: async () => ({ Component: (await import('../features/answer/AnswerPage')).AnswerPage }),
    errorElement: <Failed />,
    HydrateFallback: () => null,
  },
  {
    path: '/invitation/:token',
    lazy: async () => ({ Component: (await import('../features/signIn/InvitationPage')).InvitationPage }),
    errorElement: <Failed />,
    HydrateFallback: () => null,
  },
  {
    path: '/day-sheets',
    lazy: async () => ({ Component: (await import('./PhoneFrame')).PhoneFrame }),
    errorElement: <Failed />,
    HydrateFallback: () => null,
    children: [
      { index: true, lazy: async () => ({ Component: (await import('../features/daySheets/phone/DaysPage')).DaysPage }) },
      { path: 'new', lazy: async () => ({ Component: (await import('../features/daySheets/phone/NewDayPage')).NewDayPage }) },
      {
        path: ':job/:dated/:crew',
        lazy: async () => ({ Component: (await import('../features/daySheets/phone/DayPage')).DayPage }),
      },
    ],
  },
  {
    element: <Shell />,
    errorElement: <Failed />,
    HydrateFallback: () => null,
    children: [
      { path: '/account', lazy: async () => ({ Component: (await import('../features/users/AccountPage')).AccountPage }) },
      { path: '/site', lazy: async () => ({ Component: (await import('../features/site/SitePages')).SiteJobsPage }) },
      { path: '/site/:number', lazy: async () => ({ Component: (await import('../features/site/SitePages')).SiteJobPage }) },
      { path: '/', lazy: async () => ({ Component: (await import('../features/company/WelcomePage')).WelcomePage }) },
      {
        element: <WithCompany />,
        children: [
          { path: '/waiting', lazy: async () => ({ Component: (await import('../features/waiting/WaitingPage')).WaitingPage }) },
          {
            path: '/approvals/:approval',
            lazy: async () => ({ Component: (await import('../features/approvals/ApprovalPage')).ApprovalPage }),
          },
          ...PLACES.map(({ path, page }): RouteObject => ({ path, lazy: lazy(page) })),
          {
            path: '/jobs/:number',
            lazy: async () => ({ Component: (await import('../features/jobs/JobPage')).JobPage }),
            children: jobParts,
          },
          { path: '/reports', element: <LeadTo path="/reports/work-in-progress" /> },
        ],
      },
      { path: '*', element: <NotFound /> },
    ],
  },
]);
