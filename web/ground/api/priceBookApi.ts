import type { PriceBookView } from '../../../wire/prices';
import { api, READS } from './api';

const priceBookApi = api.injectEndpoints({
  endpoints: (build) => ({ priceBook: build.query<PriceBookView, void>({ query: () => 'prices', ...READS }) }),
});

export const { usePriceBookQuery } = priceBookApi;
