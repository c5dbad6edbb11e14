import type { Achieved, BuildUpInput, PriceChange, PriceItemsInput, PriceMoveInput, PriceMoves } from '../../../wire/prices';
import { api, POSTS, READS } from '../../ground/api/api';

const at = (code: string) => encodeURIComponent(code);

const pricesApi = api.injectEndpoints({
  endpoints: (build) => ({
    priceHistory: build.query<PriceChange[], string>({ query: (code) => `prices/items/${at(code)}/history`, ...READS }),
    achieved: build.query<Achieved[], void>({ query: () => 'prices/achieved', ...READS }),
    savePriceItems: build.mutation<unknown, PriceItemsInput>({
      query: (body) => ({ url: 'prices/items', method: 'PUT', body }),
      ...POSTS,
    }),
    removePriceItem: build.mutation<unknown, string>({
      query: (code) => ({ url: `prices/items/${at(code)}`, method: 'DELETE' }),
      ...POSTS,
    }),
    importPrices: build.mutation<{ count: number }, FormData>({
      query: (body) => ({ url: 'prices/import', method: 'POST', body }),
      ...POSTS,
    }),
    previewPriceMove: build.mutation<PriceMoves, PriceMoveInput>({
      query: (body) => ({ url: 'prices/move/preview', method: 'POST', body }),
    }),
    movePrices: build.mutation<{ count: number }, PriceMoveInput & { seen: string }>({
      query: (body) => ({ url: 'prices/move', method: 'POST', body }),
      ...POSTS,
    }),
    saveBuildUp: build.mutation<unknown, BuildUpInput>({
      query: (body) => ({ url: 'build-ups', method: 'PUT', body }),
      ...POSTS,
    }),
    removeBuildUp: build.mutation<unknown, string>({
      query: (code) => ({ url: `build-ups/${at(code)}`, method: 'DELETE' }),
      ...POSTS,
    }),
  }),
});

export const {
  usePriceHistoryQuery,
  useAchievedQuery,
  useSavePriceItemsMutation,
  useRemovePriceItemMutation,
  useImportPricesMutation,
  usePreviewPriceMoveMutation,
  useMovePricesMutation,
  useSaveBuildUpMutation,
  useRemoveBuildUpMutation,
} = pricesApi;
