import { afterAll, expect, test } from '@jest/globals';
import { type ROLES } from '../../core/rights/rights';
import { WAITING, WAITING_NAMES } from '../../core/waiting/waiting';
import { act, reading } from '../test/act';
import { cleanUp, faultsOf, folderText, temporaryDatabase, TESTER } from '../test/books';
import { lockJob } from '../jobs/jobLife';
import { waitingFor } from './handlers';

afterAll(cleanUp);

test('what waits is listed by kind, for whoever may do it, and not on a job that is locked', async () => {
  const database = await temporaryDatabase();
  expect(await faultsOf(database, folderText('demo/book'))).toEqual([]);
  const of = async (role: (typeof ROLES)[number]) => {
    const rows = await waitingFor(reading(database), { ...TESTER, role });
    return Object.fromEntries(
      WAITING_NAMES.map((kind) => [kind, rows.filter((it) => it.kind === kind).map((it) => `${it.job}/${it.document}`)]),
    );
  };
  const accountant = await of('accountant');
  // As the sample's billing register has them: drafts of 2105 and 2114, submitted 2107, 2110 and 2111.
  expect([accountant.submit, accountant.certify]).toEqual([
    ['2105/12', '2114/5'],
    ['2107/11', '2110/8', '2111/7'],
  ]);
  expect(await of('owner')).toEqual(accountant);
  const manager = await of('manager');
  expect([manager.certify, manager.submit, manager.decide]).toEqual([[], accountant.submit, accountant.decide]);
  expect((await of('estimator')).submit).toEqual([]);
  expect(await waitingFor(reading(database), { ...TESTER, role: 'site' })).toEqual([]);
  await act(database, TESTER, lockJob, '2110', true, 'until it is agreed');
  expect((await of('accountant')).certify).toEqual(['2107/11', '2111/7']);
  expect(WAITING.certify.named({ job: '2107', document: '11' })).toBe('Application 11');
});
