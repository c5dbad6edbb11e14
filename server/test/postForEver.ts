// Posts batches until it is killed, and says when the first is in. For the test that kills it.
import { act } from './act';
import { postCosts } from '../costs/postCosts';
import { openDatabase } from '../db/database';
import { TESTER } from './books';

const database = await openDatabase(process.argv[2]!);
const line = {
  dated: '2031-04-10',
  job: 'J1',
  section: 'A',
  costCode: '100',
  costType: 'labour' as const,
  party: '',
  reference: 'T',
  hours: 10_000,
  amount: 1234,
  description: '',
  commitment: '',
  uninstalled: false,
};
for (let n = 0; ; n++) {
  await act(database, TESTER, postCosts, { lines: Array.from({ length: 40 }, () => line), asOf: '2031-04-30' });
  if (n === 0) console.log('posting');
}
