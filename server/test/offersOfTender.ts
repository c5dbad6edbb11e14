import type { PlainDate } from '../../core/calendar/plainDate';
import { groupsBy } from '../../core/estimates/award';
import { awardJob } from '../estimates/award';
import { estimateList, estimateView } from '../estimates/estimateViews';
import { chooseEstimate, deleteEstimate, saveEstimate, sendEstimate } from '../estimates/estimates';
import { previewReprice, repriceEstimate } from '../estimates/repriceEstimate';
import { quotationList } from '../offers/quotationList';
import { deleteQuotation, saveQuotation, sendQuotation } from '../quotations/quotations';
import { quotationView } from '../quotations/quotationView';
import type { Sending } from '../offers/sending';
import type { Database } from '../db/database';
import { reading } from './act';
import type { Offer } from './tryOffers';

/** What the pages of a tender offer, each act on a day on which it may be done, with what the page fills in. */
export async function offersOfTender(database: Database, job: string, on: PlainDate, sending: Sending): Promise<Offer[]> {
  const sql = reading(database);
  const offers: Offer[] = [];
  for (const { number } of await estimateList(sql, job)) offers.push(...(await ofEstimate(database, job, number, on)));
  for (const { number } of await quotationList(sql, job)) offers.push(...(await ofQuotation(database, job, number, on, sending)));
  return offers;
}

async function ofEstimate(database: Database, job: string, number: number, on: PlainDate): Promise<Offer[]> {
  const { refused, ...view } = await estimateView(reading(database), job, number);
  const { version, name, overhead, profit, rounding, lines, typeMarkups, sectionMarkups } = view;
  const rates = Object.entries(typeMarkups).map(([costType, rate]) => ({ costType: costType as 'labour', rate }));
  const sections = Object.entries(sectionMarkups).map(([section, rate]) => ({ section, rate }));
  const typed = lines.map((it) => ({ ...it, parts: [...it.parts] }));
  const { seen } = await previewReprice(reading(database), job, number);
  const groups = groupsBy('line', lines).map((it) => ({ ...it, members: [...it.members] }));
  const later = view.sentOn !== null && view.sentOn > on ? view.sentOn : on;
  const acts: Record<keyof typeof refused, Offer['act']> = {
    edit: (it) =>
      saveEstimate(it, job, number, {
        version,
        name,
        overhead,
        profit,
        rounding,
        lines: typed,
        typeMarkups: rates,
        sectionMarkups: sections,
      }),
    delete: (it) => deleteEstimate(it, job, number),
    reprice: (it) => repriceEstimate(it, job, number, seen),
    send: (it) => sendEstimate(it, job, number, on, 'tried'),
    choose: (it) => chooseEstimate(it, job, number),
    award: (it) => awardJob(it, job, number, { acceptedOn: later, acceptance: 'Order 1', agreed: 1_000_000, groups }),
  };
  const moves = Object.keys(acts) as (keyof typeof acts)[];
  return moves.map((move) => ({ what: `${move} estimate ${number}`, why: refused[move], act: acts[move] }));
}

async function ofQuotation(database: Database, job: string, number: number, on: PlainDate, sending: Sending): Promise<Offer[]> {
  const { refused, ...view } = await quotationView(reading(database), job, number, on);
  const { validUntil, version, estimate, title, presentation, quantities, unitPrices, contact, email } = view;
  const { introduction, exclusions, terms, alternates, payments } = view;
  const day = validUntil !== null && validUntil < on ? validUntil : on;
  const typed = {
    version,
    estimate,
    title,
    presentation,
    quantities,
    unitPrices,
    contact,
    email,
    introduction,
    exclusions,
    terms,
    validUntil,
    alternates,
    payments,
  };
  const letter = { on: day, to: 'h@x.example', subject: 'Our quotation', message: 'As walked.' };
  // The client accepts and declines, on a page of its own.
  const acts: Record<Exclude<keyof typeof refused, 'accept' | 'decline'>, Offer['act']> = {
    edit: (it) => saveQuotation(it, job, number, typed),
    delete: (it) => deleteQuotation(it, job, number),
    send: (it) => sendQuotation(it, sending, job, number, letter),
  };
  const moves = Object.keys(acts) as (keyof typeof acts)[];
  return moves.map((move) => ({ what: `${move} quotation ${number}`, why: refused[move], act: acts[move] }));
}
