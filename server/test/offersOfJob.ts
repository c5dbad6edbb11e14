import { addDays, type PlainDate } from '../../core/calendar/plainDate';
import { deleteApplication, saveApplication, setSubmitted, startApplication } from '../billing/applications';
import { applicationView } from '../billing/applicationView';
import { billApplication, certifyApplication } from '../billing/certify';
import { jobBilling } from '../billing/jobBilling';
import { recordReceipt } from '../billing/receipts';
import { reverseCertification } from '../billing/reverseCertification';
import { viewChange } from '../changes/changeEffect';
import { deleteChange, saveChange } from '../changes/changes';
import { jobChanges } from '../changes/changeViews';
import { decideChange, issueChange } from '../changes/decideChange';
import { reversePosting } from '../corrections/reversePosting';
import { creditDaywork } from '../daywork/creditDaywork';
import { dayworkView } from '../daywork/dayworkView';
import { dayworkOfJob } from '../daywork/unbilled';
import type { Database } from '../db/database';
import { query } from '../db/query';
import { shape, t } from '../db/fields';
import { postingView } from '../ledger/postingViews';
import { reading } from './act';
import { pickedId } from './performAct';
import type { Offer } from './tryOffers';

const LAST = query(
  shape({ day: t.orNull(t.day) }),
  `SELECT max(day) AS day FROM (SELECT max(dated) AS day FROM journal UNION ALL SELECT max(dated) FROM application
     UNION ALL SELECT max(raised_on) FROM change_order UNION ALL SELECT max(issued_on) FROM change_order UNION ALL SELECT max(closed_to) FROM closing)`,
);
const POSTINGS = query(shape({ id: t.whole }), 'SELECT id FROM posting ORDER BY id');

/** What the pages of a job offer, each act on a day after all that is there, with what the page fills in. */
export async function offersOfJob(database: Database, job: string, from: PlainDate): Promise<Offer[]> {
  const sql = reading(database);
  const last = (await sql.get(LAST, []))?.day ?? from;
  const on = addDays(last > from ? last : from, 1);
  const { applications, canStart } = await jobBilling(sql, job, on);
  const offers: Offer[] = [
    {
      what: 'start an application',
      why: canStart,
      act: (it) => startApplication(it, job, { dated: on, reference: '', bySchedule: false }),
    },
  ];
  for (const { number } of applications) offers.push(...(await ofApplication(database, job, number, on)));
  for (const { number } of await jobChanges(sql, job, on)) offers.push(...(await ofChange(database, job, number, on)));
  for (const { reference } of await dayworkOfJob(
    sql,
    await pickedId({ database }, `SELECT id FROM job WHERE number = '${job}'`, 0),
    on,
  ))
    offers.push(...(await ofDaywork(database, job, reference, on)));
  for (const { id } of await sql.all(POSTINGS)) {
    const { fixed, dated } = await postingView(sql, id);
    // What is dated ahead of the day is reversed on its own day, as the page proposes.
    const act: Offer['act'] = (it) => reversePosting(it, id, { on: dated > on ? dated : on, reason: 'tried' });
    offers.push({ what: `reverse document ${id}`, why: fixed, act });
  }
  return offers;
}

async function ofApplication(database: Database, job: string, number: number, on: PlainDate): Promise<Offer[]> {
  const { refused, lines, version, dated, receivable } = await applicationView(reading(database), job, number, on);
  const typed = lines.map(({ line, work, materials }) => ({ line, work, materials }));
  const acts: Record<keyof typeof refused, Offer['act']> = {
    edit: (it) => saveApplication(it, job, number, { version, dated, reference: '', lines: typed }),
    delete: (it) => deleteApplication(it, job, number),
    submit: (it) => setSubmitted(it, job, number, true),
    return: (it) => setSubmitted(it, job, number, false),
    bill: (it) => billApplication(it, job, number, { version, on }),
    certify: (it) => certifyApplication(it, job, number, { version, on, lines: [] }),
    uncertify: (it) => reverseCertification(it, job, number, 'tried'),
    receive: (it) => recordReceipt(it, job, String(number), { dated: on, amount: receivable, reference: '' }),
  };
  // Where nothing is to be received, the page has no form for it.
  const moves = (Object.keys(acts) as (keyof typeof acts)[]).filter((it) => it !== 'receive' || receivable !== 0);
  return moves.map((move) => ({ what: `${move} application ${number}`, why: refused[move], act: acts[move] }));
}

async function ofDaywork(database: Database, job: string, reference: string, on: PlainDate): Promise<Offer[]> {
  const { can, open, nextCreditNote } = await dayworkView(reading(database), job, reference, on);
  const credit = { dated: on, creditNote: nextCreditNote, reason: 'tried' };
  const offers: Offer[] = [
    {
      what: `credit ${reference} in full`,
      why: can.creditInFull,
      act: (it) => creditDaywork(it, job, reference, { ...credit, amount: null }),
    },
    {
      what: `credit a penny of ${reference}`,
      why: can.creditInPart,
      act: (it) => creditDaywork(it, job, reference, { ...credit, amount: 1 }),
    },
  ];
  if (open !== 0)
    offers.push({
      what: `receive on ${reference}`,
      why: can.receive,
      act: (it) => recordReceipt(it, job, reference, { dated: on, amount: open, reference: '' }),
    });
  return offers;
}

async function ofChange(database: Database, job: string, number: string, on: PlainDate): Promise<Offer[]> {
  const { refused, ...view } = await viewChange(database, job, number, on);
  const decide =
    (status: 'approved' | 'rejected' | 'withdrawn'): Offer['act'] =>
    (it) =>
      decideChange(it, job, number, { status, on, by: 'Client', note: '', agreed: null, daysGranted: null });
  const acts: Record<Exclude<keyof typeof refused, 'send'>, Offer['act']> = {
    edit: (it) =>
      saveChange(
        it,
        job,
        {
          version: view.version,
          number,
          title: view.title,
          raisedOn: view.raisedOn,
          reference: view.reference,
          reason: view.reason,
          askedBy: view.askedBy,
          daysAsked: view.daysAsked,
          price: view.priceLines,
          cost: view.costLines,
        },
        number,
      ),
    delete: (it) => deleteChange(it, job, number),
    issue: (it) => issueChange(it, job, number, on),
    approved: decide('approved'),
    rejected: decide('rejected'),
    withdrawn: decide('withdrawn'),
  };
  const moves = Object.keys(acts) as (keyof typeof acts)[];
  return moves.map((move) => ({ what: `${move} ${number}`, why: refused[move], act: acts[move] }));
}
