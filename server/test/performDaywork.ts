import { addDays } from '../../core/calendar/plainDate';
import type { Command } from '../acts/command';
import { saveMarks } from '../charging/saveMarks';
import { creditDaywork } from '../daywork/creditDaywork';
import { issueRun, previewRun } from '../daywork/runDaywork';
import { shape, t } from '../db/fields';
import { query } from '../db/query';
import { act as carryOut, reading } from './act';
import type { DayworkAct } from './acts';
import type { Books } from './performAct';

const ENTRIES = query(shape({ id: t.whole }), 'SELECT id FROM cost_entry WHERE job_id IS NOT NULL ORDER BY id');
const INVOICES = query(
  shape({ reference: t.text, amount: t.cents }),
  'SELECT reference, amount FROM daywork_invoice ORDER BY id',
);

/** Marks entries; marks and invoices some, with all that is charged or alone; or credits an invoice in part or in full: each as the pages do it. */
export async function performDaywork({ database, on, by, done }: Books, it: DayworkAct): Promise<unknown> {
  const sql = reading(database);
  const entries = await sql.all(ENTRIES);
  const picked = (pick: number) => entries[pick % entries.length]?.id ?? 0;
  switch (it.kind) {
    case 'mark': {
      const from = it.ahead === null ? null : addDays(on, it.ahead);
      const { mark, markup } = it;
      return carryOut(database, by, saveMarks, 'J1', { entries: [...new Set(it.picks.map(picked))], mark, from, markup });
    }
    case 'invoice':
      return carryOut(database, by, async (command: Command) => {
        const chosen = [...new Set(it.picks.map(picked))];
        await saveMarks(command, 'J1', { entries: chosen, mark: 'yes' });
        const one = { job: 'J1', reference: '', shown: it.shown, wording: '' };
        const invoices = [{ ...one, entries: it.only ? chosen : null }];
        const run = { dated: on, cutOff: addDays(on, -it.back), invoices };
        const { seen } = await previewRun(command.sql, run);
        return issueRun(command, { ...run, seen });
      });
    case 'credit': {
      const invoices = await sql.all(INVOICES);
      const invoice = invoices[it.pick % invoices.length];
      const amount = it.share === null ? null : Math.floor(((invoice?.amount ?? 0) * it.share) / 100);
      const input = { dated: on, amount, creditNote: `Credit ${done}`, reason: 'tried' };
      return carryOut(database, by, creditDaywork, 'J1', invoice?.reference ?? 'none', input);
    }
  }
}
