import type { Lists, Session } from '../../../wire/company';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { api, READS } from './api';

const sessionApi = api.injectEndpoints({
  endpoints: (build) => ({
    session: build.query<Session, void>({ query: () => 'session', ...READS }),
    lists: build.query<Lists, { asOf: string }>({ query: (params) => ({ url: 'lists', params }), ...READS }),
  }),
});

type Cached = Parameters<typeof sessionApi.util.selectCachedArgsForQuery>[0];

/** Puts what was just added into the lists at once, so that nobody waits until they are read anew to go on with it. */
export async function addToLists(
  added: Partial<Pick<Lists, 'clients' | 'costCodes'>>,
  lifecycle: {
    dispatch: ThunkDispatch<Cached, unknown, UnknownAction>;
    getState: () => unknown;
    queryFulfilled: Promise<unknown>;
  },
): Promise<void> {
  try {
    await lifecycle.queryFulfilled;
  } catch {
    return;
  }
  for (const args of sessionApi.util.selectCachedArgsForQuery(lifecycle.getState() as Cached, 'lists'))
    lifecycle.dispatch(
      sessionApi.util.updateQueryData('lists', args, (lists) => {
        lists.clients.push(...(added.clients ?? []));
        lists.costCodes.push(...(added.costCodes ?? []));
      }),
    );
}

export const { useSessionQuery, useListsQuery } = sessionApi;
