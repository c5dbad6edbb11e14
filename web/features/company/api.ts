import type { CompanyInput, CostCodesInput } from '../../../wire/company';
import { api, POSTS } from '../../ground/api/api';

const setupApi = api.injectEndpoints({
  endpoints: (build) => ({
    saveCompany: build.mutation<unknown, CompanyInput>({ query: (body) => ({ url: 'company', method: 'POST', body }), ...POSTS }),
    saveCostCodes: build.mutation<unknown, CostCodesInput>({
      query: (body) => ({ url: 'cost-codes', method: 'POST', body }),
      ...POSTS,
    }),
    loadSample: build.mutation<Record<string, number>, void>({ query: () => ({ url: 'book/sample', method: 'POST' }), ...POSTS }),
    importBook: build.mutation<Record<string, number>, FormData>({
      query: (body) => ({ url: 'book/import', method: 'POST', body }),
      ...POSTS,
    }),
  }),
});

export const { useSaveCompanyMutation, useSaveCostCodesMutation, useLoadSampleMutation, useImportBookMutation } = setupApi;
