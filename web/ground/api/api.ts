import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

/** The one API slice; each feature adds its own endpoints to it. Whatever is posted makes every figure stale. */
export const api = createApi({
  baseQuery: fetchBaseQuery({ baseUrl: '/api' }),
  tagTypes: ['books'],
  refetchOnMountOrArgChange: 30,
  endpoints: () => ({}),
});

/** Marks a query as read from the books, and a command as changing them where it was not refused. */
export const READS = { providesTags: ['books' as const] };
export const POSTS = {
  invalidatesTags: (_result: unknown, refused: unknown) => (refused ? [] : ['books' as const]),
};
