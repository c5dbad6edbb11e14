import { hrefOf, type Call, type OutputOf, type SentOf } from '../../../wire/call';

/** Reads something once, past what is shown: what a page typed over must not be replaced by it. Throws as a refused call does. */
export async function readOnce<C extends Call>(call: C, args: SentOf<C>): Promise<OutputOf<C>> {
  const reply = await fetch(hrefOf(call, args));
  const data: unknown = await reply.json();
  if (!reply.ok) throw Object.assign(new Error(reply.statusText), { data, status: reply.status });
  return data as OutputOf<C>;
}
