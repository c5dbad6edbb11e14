import type { AnswerView } from '../../../wire/quotations';
import { api, READS, POSTS } from '../../ground/api/api';

const answerApi = api.injectEndpoints({
  endpoints: (build) => ({
    answer: build.query<AnswerView, string>({ query: (token) => `answer/${encodeURIComponent(token)}`, ...READS }),
    giveAnswer: build.mutation<unknown, { token: string; how: 'ask' | 'accept' | 'decline'; body: Record<string, string> }>({
      query: ({ token, how, body }) => ({ url: `answer/${encodeURIComponent(token)}/${how}`, method: 'POST', body }),
      ...POSTS,
    }),
  }),
});

export const { useAnswerQuery, useGiveAnswerMutation } = answerApi;
