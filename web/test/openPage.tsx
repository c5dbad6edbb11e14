import { configure, render, type RenderResult } from '@testing-library/react';
import type { ComponentType } from 'react';
import { Provider } from 'react-redux';
import { createMemoryRouter } from 'react-router';
import { RouterProvider } from 'react-router/dom';
import type { OutputOf } from '../../wire/call';
import { CALLS } from '../../wire/calls';
import type { Session } from '../../wire/company';
import { api, useSessionQuery } from '../ground/api/api';
import { store } from '../ground/api/store';

// Parts of a page are fetched when they are first opened, which takes its time beside other tests.
configure({ asyncUtilTimeout: 15_000 });

type Name = keyof typeof CALLS;

/** What a page asked the server for. */
export interface Asked {
  call: Name;
  /** Where it was asked for. */
  path: string;
  /** Its query. */
  query: Record<string, string>;
  /** What was sent as JSON; nothing of an upload. */
  body: unknown;
}

/** A reply of the server: what the call gives, or a refusal with its status. */
type Reply<N extends Name> = OutputOf<(typeof CALLS)[N]> | { status: number; body: { message: string; faults?: unknown[] } };
/** Replies by call; a function is asked each time. */
export type Replies = { [N in Name]?: Reply<N> | ((asked: Asked) => Reply<N>) };

const COMPANY = {
  registrationNumber: '',
  taxNumber: '',
  phone: '',
  email: '',
  web: '',
  bankDetails: '',
  hasLogo: false,
  timeZone: '',
  siteDays: 30,
  name: 'Brackenfell Envelope Ltd',
  currency: 'GBP',
  digits: 2,
  taxName: 'VAT',
  taxRate: 200_000,
  yearStartMonth: 4,
  address: '',
  jobNumberPattern: '',
};

/**
 * Opens a page at an address, on a server that gives these replies: a session of a company in pounds is among them.
 * Gives back what was asked of the server, in order, and the address as it is now.
 */
export function openPage(Page: ComponentType, path: string, address: string, replies: Replies): RenderResult & Opened {
  const session: Session = {
    user: { name: 'Ines Tolland', email: 'i@x.example', role: 'owner' as const, secondFactor: false, narrowed: [] },
    needsOwner: false,
    demo: [],
    company: COMPANY,
    newestMonth: '2031-04',
    closedTo: null,
    today: '2031-05-12',
    jobCount: 1,
    sendsMail: false,
    troubles: [],
  };
  const given: Replies = { session, ...replies };
  const asked: Asked[] = [];
  store.dispatch(api.util.resetApiState());
  globalThis.fetch = async (input) => {
    const request = input as Request;
    const url = new URL(request.url);
    const call = callOf(request.method, url.pathname);
    const isJson = request.headers.get('content-type')?.startsWith('application/json') === true;
    const body = isJson ? ((await request.json()) as unknown) : undefined;
    const one = { call, path: url.pathname, query: Object.fromEntries(url.searchParams), body };
    asked.push(one);
    const reply = given[call] as unknown;
    if (reply === undefined) throw new Error(`The test has no reply to ${call}`);
    const said = (await (typeof reply === 'function' ? (reply as (it: Asked) => unknown)(one) : reply)) as {
      status?: number;
      body?: unknown;
    };
    const refused = typeof said.status === 'number';
    return Response.json(refused ? said.body : said, { status: refused ? said.status : 200 });
  };
  const router = createMemoryRouter(
    [
      { path, element: <WithSession page={Page} /> },
      { path: '*', element: <p>elsewhere</p> },
    ],
    {
      initialEntries: [address],
    },
  );
  const page = render(
    <Provider store={store}>
      <RouterProvider router={router} />
    </Provider>,
  );
  const sent = (call: Name) => asked.filter((it) => it.call === call).map((it) => it.body);
  return { ...page, asked, sent, address: () => router.state.location.pathname + router.state.location.search };
}

/** A page stands below a company, as in the product. */
function WithSession({ page: Page }: { page: ComponentType }) {
  const { data } = useSessionQuery();
  return data ? <Page /> : null;
}

interface Opened {
  asked: Asked[];
  /** What was sent with a call, in order. */
  sent: (call: Name) => unknown[];
  address: () => string;
}

/** The call a request is; the most exact one where several paths match. */
function callOf(method: string, path: string): Name {
  const matching = (Object.keys(CALLS) as Name[]).filter((name) => {
    const call = CALLS[name];
    const pattern = call.path.replace(/[.]/g, '\\.').replace(/:(\w+)/g, '[^/]+');
    return call.method === method && new RegExp(`^/api${pattern}$`).test(path);
  });
  const [first] = matching.sort((a, b) => (CALLS[a].path.match(/:/g)?.length ?? 0) - (CALLS[b].path.match(/:/g)?.length ?? 0));
  if (!first) throw new Error(`No call is ${method} ${path}`);
  return first;
}
