import { act, reading } from '../test/act';
import { afterAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { Database } from '../db/database';
import { cleanUp, faultsOf, temporaryDatabase, TENDER_BOOK, TESTER } from '../test/books';
import { saveChange } from '../changes/changes';
import { addEvent } from '../jobFile/jobFile';
import { deleteJob, moveJob } from './jobLife';

afterAll(cleanUp);

let database: Database;
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, TENDER_BOOK)).toEqual([]);
});

describe('nothing with history is deleted', () => {
  test('a bare tender goes; anything else is kept, and what to do instead is told', async () => {
    await act(database, TESTER, deleteJob, 'J2');
    expect(await reading(database).anyRows('SELECT number FROM job')).toEqual([{ number: 'J1' }]);
    await expect(act(database, TESTER, deleteJob, 'J1')).rejects.toThrow(
      /Job J1 has posted cost, .*so it cannot be deleted; close it when it is finished, or lock it/,
    );
    const noted = await temporaryDatabase();
    expect(await faultsOf(noted, TENDER_BOOK)).toEqual([]);
    await act(noted, TESTER, addEvent, 'J2', { kind: 'call', dated: '2031-05-02', text: 'Asked for a lower price' });
    await expect(act(noted, TESTER, deleteJob, 'J2')).rejects.toThrow(
      /Job J2 has .*noted events, so it cannot be deleted; say that it was lost or withdrawn/,
    );
    const other = await temporaryDatabase();
    expect(
      await faultsOf(other, { ...TENDER_BOOK, forecasts: `${TENDER_BOOK.forecasts}J2,2031-02-28,,100,labour,percent,60\n` }),
    ).toEqual([]);
    await expect(act(other, TESTER, deleteJob, 'J2')).rejects.toThrow(
      /Job J2 has forecasts, so it cannot be deleted; say that it was lost/,
    );
  });

  test('closing out takes final cost and bills, but no change', async () => {
    await act(database, TESTER, moveJob, 'J1', { status: 'closing-out', on: '2031-05-01', reason: '' });
    await expect(
      act(
        database,
        TESTER,
        saveChange,
        'J1',
        {
          version: 0,
          number: 'C9',
          title: 't',
          raisedOn: '2031-05-02',
          reference: '',
          reason: '',
          askedBy: '',
          daysAsked: null,
          price: [],
          cost: [],
        },
        null,
      ),
    ).rejects.toThrow(/closing out; it takes no change orders/);
  });
});
