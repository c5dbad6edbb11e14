import type { Lists, Session } from '../../../wire/setup';
import { api, READS } from './api';

const sessionApi = api.injectEndpoints({
  endpoints: (build) => ({
    session: build.query<Session, void>({ query: () => 'session', ...READS }),
    lists: build.query<Lists, { asOf: string }>({ query: (params) => ({ url: 'lists', params }), ...READS }),
  }),
});

export const { useSessionQuery, useListsQuery } = sessionApi;
