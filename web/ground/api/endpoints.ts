import type { EndpointBuilder, FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { BaseQueryFn, MutationDefinition, QueryDefinition } from '@reduxjs/toolkit/query';
import { addressOf, queryArgs, type Call, type Calls, type OutputOf, type SentOf } from '../../../wire/call';

/** One request as the base query sends it. */
export interface Sent {
  /** The name of the call, by which requests that may have been lost are recognised. */
  call: string;
  method: string;
  url: string;
  params?: Record<string, unknown>;
  body?: unknown;
  /** Asks for the approval it needs, for this reason. */
  asking?: string;
}
export type Base = BaseQueryFn<Sent, unknown, FetchBaseQueryError>;

/** What a page passes: nothing at all where a call takes nothing. */
type Passed<C extends Call> = keyof SentOf<C> extends never ? void : SentOf<C>;

/** Calls a page reads or carries out; downloads are links. */
export type EndpointsOf<C extends Calls> = {
  [Name in keyof C as C[Name]['kind'] extends 'download' ? never : Name]: C[Name]['kind'] extends 'query'
    ? QueryDefinition<Passed<C[Name]>, Base, Tag, OutputOf<C[Name]>, 'api'>
    : MutationDefinition<Passed<C[Name]>, Base, Tag, OutputOf<C[Name]>, 'api'>;
};

/** What makes an answer stale: anything (`books`), anything that is of no one job (`across`), or what happens on its job. */
export const TAGS = ['books', 'across', 'job'] as const;
export type Tag = (typeof TAGS)[number];

/** The job a call is of, by its address; null where it is of none or of several. */
const jobOf = (args: unknown) => ((args ?? {}) as { job?: string }).job ?? null;

/**
 * The endpoints of all calls. What changes the books makes every figure stale, but for what is saved as it is typed; on one job, those of
 * the job and those over all jobs: what was read of another job stays as it is.
 */
export function endpointsOf<C extends Calls>(calls: C, build: EndpointBuilder<Base, Tag, 'api'>): EndpointsOf<C> {
  const endpoints = Object.entries(calls)
    .filter(([, call]) => call.kind !== 'download')
    .map(([name, call]) => [name, call.kind === 'query' ? reading(name, call, build) : changing(name, call, build)]);
  return Object.fromEntries(endpoints) as EndpointsOf<C>;
}

/** By its address alone: a report that may be narrowed to a job is one over all of them. */
const isOfJob = ({ path }: Call) => path.startsWith('/jobs/:job');

function sentOf(name: string, call: Call, args: unknown): Sent {
  const given = (args ?? {}) as Record<string, unknown>;
  return {
    call: name,
    method: call.method,
    url: addressOf(call, given),
    params: queryArgs(call, given),
    ...('body' in given ? { body: given.body } : {}),
  };
}

function reading(name: string, call: Call, build: EndpointBuilder<Base, Tag, 'api'>) {
  return build.query<unknown, unknown>({
    query: (args) => sentOf(name, call, args),
    providesTags: (_result, _refused, args) => {
      const job = isOfJob(call) ? jobOf(args) : null;
      return job === null ? ['books', 'across'] : ['books', { type: 'job', id: job }];
    },
  });
}

function changing(name: string, call: Call, build: EndpointBuilder<Base, Tag, 'api'>) {
  const changes = (call.kind === 'command' || call.kind === 'upload') && !call.quiet;
  return build.mutation<unknown, unknown>({
    query: (args) => sentOf(name, call, args),
    // A refused command changed nothing.
    invalidatesTags: (_result, refused, args) => {
      if (!changes || refused) return [];
      const job = isOfJob(call) ? jobOf(args) : null;
      return job === null ? ['books'] : ['across', { type: 'job', id: job }];
    },
  });
}
