import { api } from '../api/api';

const sheetsApi = api.injectEndpoints({
  endpoints: (build) => ({
    readSheet: build.mutation<string[][], FormData>({ query: (body) => ({ url: 'sheets', method: 'POST', body }) }),
  }),
});

export const { useReadSheetMutation } = sheetsApi;
