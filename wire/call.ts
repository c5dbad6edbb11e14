import * as v from 'valibot';
import type { Part } from '../core/rights/parts';
import type { Right } from '../core/rights/rights';
import { asOf } from './fields';

/**
 * How a call is carried out. A query reads; a preview reads what a command would do, with an input; a command changes the
 * books; an upload is a command with files; a download gives a file.
 */
export type CallKind = 'query' | 'preview' | 'command' | 'upload' | 'download';
export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

type Schema = v.GenericSchema;
type Empty = Record<never, never>;

/** One way in: what the server's routes, the pages' endpoints and the tests of bad input are made from. */
export interface Call<
  Kind extends CallKind = CallKind,
  Path extends string = string,
  Query extends Schema | null = Schema | null,
  Input extends Schema | null = Schema | null,
  Output = unknown,
> {
  kind: Kind;
  method: Method;
  /** Under /api; `:name` is a parameter, text or a whole number as WHOLE_PARAMETERS says. */
  path: Path;
  query: Query;
  input: Input;
  who: Right;
  /** True where nothing a page shows becomes stale by it: what is saved as it is typed. */
  quiet: boolean;
  /** Its input or its reply holds a secret: neither is remembered against its being sent twice. */
  secret: boolean;
  /** A further right that it needs by what is asked for. */
  also: ((args: Readonly<Record<string, unknown>>) => Right) | null;
  /** What it is part of, where the owner may take that from a role; by what is asked for. */
  part: ((args: Readonly<Record<string, unknown>>) => string) | null;
  /** Only for its type. */
  output?: Output;
}
export type Calls = Readonly<Record<string, Call>>;

/** Parameters of addresses that are whole numbers; all others are text. */
export const WHOLE_PARAMETERS = ['application', 'estimate', 'quotation', 'posting', 'id'] as const;
type WholeParameter = (typeof WHOLE_PARAMETERS)[number];

type NamesIn<Path extends string> = Path extends `${string}:${infer Rest}`
  ? Rest extends `${infer Name}/${infer Tail}`
    ? NameOf<Name> | NamesIn<Tail>
    : NameOf<Rest>
  : never;
type NameOf<Part extends string> = Part extends `${infer Name}.:${infer Other}` ? Name | Other : Part;

/** The parameters of a path, by name. */
export type ParametersOf<Path extends string> = {
  [Name in NamesIn<Path>]: Name extends WholeParameter ? number : string;
};
export type BodyOf<C extends Call> = C['input'] extends Schema ? { body: v.InferOutput<C['input']> } : Empty;
export type QueryOf<C extends Call> = C['query'] extends Schema ? v.InferOutput<C['query']> : Empty;
export type OutputOf<C extends Call> = NonNullable<C['output']>;

/** What a call is carried out with: its path's parameters, its query and its body, in one object. */
export type ArgsOf<C extends Call> = ParametersOf<C['path']> & QueryOf<C> & BodyOf<C>;
/** What a page sends: as a schema takes it. */
export type SentOf<C extends Call> = ParametersOf<C['path']> &
  (C['query'] extends Schema ? v.InferInput<C['query']> : Empty) &
  (C['kind'] extends 'upload' ? { body: FormData } : C['input'] extends Schema ? { body: v.InferInput<C['input']> } : Empty);

interface Options<Query extends Schema | null, Input extends Schema | null> {
  query?: Query;
  input?: Input;
  who?: Right;
  quiet?: boolean;
  secret?: boolean;
  also?: Call['also'];
  part?: Part | Call['part'];
  method?: Method;
}

const made =
  <Output, Kind extends CallKind>(kind: Kind, usual: Method, right: Right) =>
  <Path extends string, Query extends Schema | null = null, Input extends Schema | null = null>(
    path: Path,
    {
      query,
      input,
      who = right,
      quiet = false,
      secret = false,
      also = null,
      part = null,
      method = usual,
    }: Options<Query, Input> = {},
  ): Call<Kind, Path, Query, Input, Output> => ({
    kind,
    method,
    path,
    who,
    quiet,
    secret,
    also,
    part: typeof part === 'string' ? () => part : part,
    query: (query ?? null) as Query,
    input: (input ?? null) as Input,
  });

/** A question of somebody with the right `who`. */
export const query = <Output>(who: Right) => made<Output, 'query'>('query', 'GET', who);
export const preview = <Output>(who: Right) => made<Output, 'preview'>('preview', 'POST', who);
/** A command of somebody with the right `who`. */
export const command = <Output = Empty>(who: Right) => made<Output, 'command'>('command', 'POST', who);
export const upload = <Output = Empty>(who: Right) => made<Output, 'upload'>('upload', 'POST', who);
export const download = (who: Right) => made<never, 'download'>('download', 'GET', who);

/** The query of a view as of a date. */
export const dated = v.strictObject({ asOf });

/** The names of a path's parameters, in order. */
export function parameterNames(path: string): string[] {
  return [...path.matchAll(/:(\w+)/g)].map((match) => match[1] ?? '');
}

/** The address of a call with its parameters filled in. */
export function addressOf({ path }: Pick<Call, 'path'>, parameters: Readonly<Record<string, unknown>>): string {
  return path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(parameters[name])));
}

/** The address of a download, for a link. */
export function hrefOf<C extends Call>(call: C, args: SentOf<C>): string {
  const rest = queryArgs(call, args as Record<string, unknown>);
  const query = new URLSearchParams(rest as Record<string, string>).toString();
  return `/api${addressOf(call, args as Record<string, unknown>)}${query && `?${query}`}`;
}

/** What of the arguments belongs into the query. */
export function queryArgs({ path }: Pick<Call, 'path'>, args: Readonly<Record<string, unknown>>): Record<string, unknown> {
  const names = new Set([...parameterNames(path), 'body']);
  return Object.fromEntries(Object.entries(args).filter(([key, value]) => !names.has(key) && value !== undefined));
}
