/** @jest-environment ./web/test/pageEnvironment.js */
import { expect, jest, test } from '@jest/globals';
import { configureStore } from '@reduxjs/toolkit';
import { api } from './api';

/** What is asked of the server, in order; every answer is empty. */
function asked(): string[] {
  const urls: string[] = [];
  globalThis.fetch = jest.fn((request: Request) => {
    const { pathname } = new URL(request.url);
    urls.push(`${request.method} ${pathname.replace('/api', '')}`);
    return Promise.resolve(new Response('{}', { headers: { 'content-type': 'application/json' } }));
  }) as never;
  return urls;
}

const settled = () => new Promise((done) => setTimeout(done, 50));

test('a command on a job reads again what shows the job and what is over all jobs; one of no job, everything; a refused one, nothing', async () => {
  const urls = asked();
  const store = configureStore({
    reducer: { [api.reducerPath]: api.reducer },
    middleware: (usual) => usual().concat(api.middleware),
  });
  const asOf = '2031-04';
  for (const job of ['J1', 'J2']) void store.dispatch(api.endpoints.job.initiate({ job, asOf }));
  void store.dispatch(api.endpoints.jobList.initiate({ asOf }));
  await settled();
  expect(urls.splice(0).sort()).toEqual(['GET /jobs', 'GET /jobs/J1', 'GET /jobs/J2']);
  await store.dispatch(api.endpoints.lockJob.initiate({ job: 'J1', body: { locked: true, reason: 'Final account' } }));
  await settled();
  expect(urls.splice(0).sort()).toEqual(['GET /jobs', 'GET /jobs/J1', 'POST /jobs/J1/lock']);
  await store.dispatch(api.endpoints.closeBooks.initiate({ body: { to: '2031-03-31', reason: '' } }));
  await settled();
  expect(urls.splice(0).sort()).toEqual(['GET /jobs', 'GET /jobs/J1', 'GET /jobs/J2', 'POST /closing']);
});
