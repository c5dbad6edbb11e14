import { clientDocumentPdf } from '../offers/clientDocumentPdf';
import { handOver, openPayroll, payrollSetting, savePayrollSetting } from '../payroll/payroll';
import { saveDaySheet } from '../daySheets/saveDaySheet';
import { signedDay } from './workedDay';
import { act, reading } from './act';
import { groupsBy } from '../../core/estimates/award';
import { writeBook } from '../book/writeBook';
import { certifyApplication } from '../billing/certify';
import { reverseCertification } from '../billing/reverseCertification';
import { NO_MORE } from '../../core/masters/masters';
import { addMaster } from '../masters/masters';
import { transferBudget } from '../budget/transfers';
import { awardJob } from '../estimates/award';
import { saveEstimatePattern } from '../estimates/estimatePatterns';
import { startEstimate } from '../estimates/estimates';
import { addEvent, attachFile, saveCheckTemplate, saveJobFacts } from '../jobFile/jobFile';
import { jobFileView } from '../jobFile/jobFileView';
import { restrictJob } from '../jobs/restricted';
import { lockJob } from '../jobs/jobLife';
import { saveJobTemplate } from '../jobSetUp/jobTemplates';
import { acceptOffer, askAboutOffer, replyToQuestion } from '../offers/offers';
import { saveQuotation, sendQuotation } from '../quotations/quotations';
import type { Database } from '../db/database';
import { offersOf } from '../offers/offerViews';
import { Outbox } from '../stand-ins/outbox';
import { loadEstimate } from '../estimates/estimateViews';
import {
  faultsOf,
  folderText,
  temporaryDatabase,
  besides,
  temporaryFolder,
  TENDER_BOOK,
  TESTER,
  type BookText,
  LABOUR_TERMS,
  TIME_HEAD,
} from './books';
import { keepChecklist, saveInstalmentsAsSeen, keepPeople, savePlanAsSeen } from './asSeen';

/** A section of which only planned days are known. */
export const NOT_BEGUN = { startedOn: null, finishedOn: null };

/** An instalment due on a day and taken from the job. */
export const BY_DAY = {
  stages: [] as string[],
  due: 'day' as 'day' | 'finish',
  day: null as string | null,
  days: 0,
  from: 'job' as 'job' | 'stages',
  rate: null as number | null,
  amount: null as number | null,
};

export async function exportedBook(of: Database): Promise<BookText> {
  const folder = temporaryFolder();
  await writeBook(reading(of), folder, besides(of));
  return folderText(folder);
}

/** A book that has rows in every file of the format: the tender book quoted, awarded, moved and planned. */
export async function wholeBook(): Promise<BookText> {
  const database = await temporaryDatabase();
  const faults = await faultsOf(database, TENDER_BOOK);
  if (faults.length > 0) throw new Error(`the tender book does not come in: ${faults.join(' ')}`);
  await act(database, TESTER, saveEstimatePattern, { name: 'Usual roof', job: 'J2', estimate: 1 });
  await act(database, TESTER, startEstimate, 'J2', {
    name: 'Cheaper',
    copyOf: { job: 'J2', estimate: 1 },
    pattern: null,
    reprice: false,
  });
  await act(database, TESTER, saveQuotation, 'J2', null, {
    version: 0,
    estimate: 1,
    title: 'Roof',
    presentation: 'line',
    quantities: true,
    unitPrices: false,
    contact: 'H',
    email: 'h@x.example',
    introduction: 'Two\nlines',
    exclusions: 'a',
    terms: 't',
    validUntil: '2031-06-01',
    alternates: [{ name: 'Green', amount: -5 }],
    payments: [{ name: 'All', rate: 1_000_000, amount: null, dueOn: '2031-06-01', stage: '' }],
  });
  const stores = besides(database);
  const sending = {
    outbox: new Outbox(stores.outbox),
    files: stores.files,
    address: 'http://ledrin.test',
    pdfOf: clientDocumentPdf,
  };
  await act(database, TESTER, sendQuotation, sending, 'J2', 1, {
    on: '2031-04-01',
    to: 'h@x.example',
    subject: 'Our quotation',
    message: 'Dear Mr Hale,\nas walked.',
  });
  const { token } = (await offersOf(reading(database), 'J2', 'quotation', '1', '2031-04-02'))[0]!;
  await act(database, { name: '', at: '2031-04-02T10:00:00.000Z' }, askAboutOffer, token, 'Mr Hale', 'When?');
  await act(database, TESTER, replyToQuestion, 1, 'In June.');
  await act(database, { name: '', at: '2031-04-19T10:00:00.000Z' }, acceptOffer, token, {
    name: 'J. Hale',
    signature: 'M1 1L20 5',
    options: [],
  });
  const { lines } = await loadEstimate(reading(database), 'J2', 1);
  await act(database, TESTER, awardJob, 'J2', 1, {
    acceptedOn: '2031-04-20',
    acceptance: 'Order 7',
    agreed: 615_000,
    groups: groupsBy('section', lines).map((it) => ({ ...it, members: [...it.members] })),
  });
  const at = { section: 'A', costType: 'labour' as const, hours: null };
  await act(database, TESTER, transferBudget, 'J1', {
    dated: '2031-04-05',
    reason: 'Slower than thought',
    lines: [
      { ...at, costCode: '100', amount: 500 },
      { ...at, costCode: '200', costType: 'material', amount: -500 },
    ],
  });
  await keepPeople(database, 'J1', [{ side: 'client', name: 'Mr Hale', role: 'Surveyor', email: 'h@x.example', phone: '1' }]);
  await act(database, TESTER, addEvent, 'J1', { kind: 'visit', dated: '2031-03-02', text: 'Walked the roof,\n"twice"' });
  await act(
    ...([database, TESTER, attachFile, besides(database).files, 'J1'] as const),
    { name: 'Bond.txt', mediaType: 'text/plain', content: Buffer.from('A bond of 5,000.00') },
    { about: 'insurance', forSite: true },
  );
  await act(database, TESTER, saveCheckTemplate, { name: 'Roofs', items: ['Bond', 'Permit, "hot works"'] });
  await act(database, TESTER, saveJobTemplate, {
    name: 'A roof',
    content: { facts: { retention: '5' }, sov: [{ line: '1', value: '' }], budget: [] },
  });
  await act(database, TESTER, restrictJob, 'J1', true, 'Secret plans');
  await act(database, TESTER, lockJob, 'J2', true, 'Until the bond is here');
  await keepChecklist(database, 'J1', [{ item: 'Bond', person: 'Ines', dueOn: '2031-04-01', doneOn: null }]);
  await savePlanAsSeen(database, 'J1', {
    sections: [{ ...NOT_BEGUN, name: 'A', startsOn: '2031-01-01', finishesOn: null }],
    lines: [{ section: 'A', costCode: '100', costType: 'labour', startsOn: '2031-02-01', finishesOn: '2031-02-28' }],
  });
  await saveInstalmentsAsSeen(database, 'J1', [
    { ...BY_DAY, name: 'On order', day: '2031-01-31', rate: 400_000 },
    { ...BY_DAY, name: 'When done', due: 'finish', stages: ['A'], days: -14, from: 'stages', amount: 660_000 },
  ]);
  await act(database, TESTER, certifyApplication, 'J1', 3, { version: null, on: '2031-04-01', lines: [] });
  await act(database, TESTER, reverseCertification, 'J1', 3, 'not agreed yet');
  await act(database, TESTER, addMaster, 'people', {
    ...NO_MORE,
    code: 'Ann Ash',
    name: 'Foreman',
    email: 'a@ash.example',
    closed: false,
  });
  const time = [
    '7,1,E1,2031-03-03,,J1,A,100,weld,fitter,,9.5,,,',
    '7,2,E1,2031-03-04,2031-03-10,J1,A,200,,,regular,8,40,,',
    '7,3,E2,2031-03-04,,,,,,,,8,,submitted,',
    '8,1,E1,2031-03-04,2031-03-11,J1,A,200,,,regular,-8,-40,,7/2/regular',
  ];
  const wrong = await faultsOf(database, {
    ...LABOUR_TERMS,
    wage_classes: 'wage_class,description\nfitter,"Fitter, qualified"\nmate,\n',
    time: `${TIME_HEAD}${time.join('\n')}\n`,
    charge_rates: 'from,job,customer,work_kind,employee,wage_class,rate\n2031-01-01,J1,,weld,,,55\n',
    daywork_terms: 'job,cost_type,markup_percent\nJ1,material,12.5\n',
    costs:
      'dated,job,cost_code,cost_type,reference,amount,charge,charge_from,markup_percent,daywork_invoice,quantity,unit\n2031-03-02,J1,200,material,DW1,80.00,yes,2031-03-03,10,D-1;D-2,2,box\n',
    daywork_invoices:
      'job,invoice,dated,cut_off,shown,credited_on,credit_note,wording,credit_reason\nJ1,D-1,2031-03-05,2031-03-04,one-line,2031-03-06,CN-1,"Rain, made good",Wrong job number\nJ1,D-2,2031-03-07,2031-03-07,,,,,\n',
    daywork_credits: 'job,invoice,credit_note,dated,amount,reason\nJ1,D-2,CN-2,2031-03-08,8.00,"Agreed, on site"\n',
  });
  if (wrong.length > 0) throw new Error(`labour does not come in: ${wrong.join(' ')}`);
  await act(database, TESTER, saveDaySheet, { job: 'J1', dated: '2031-03-05', crew: 'Ann Ash' }, signedDay(), null);
  await act(database, TESTER, addMaster, 'departments', { ...NO_MORE, code: 'R', name: 'Roofing, all', closed: false });
  await act(database, TESTER, addMaster, 'job-kinds', {
    ...NO_MORE,
    code: 'S',
    name: 'Small works',
    retentionRate: 0,
    revenueMethod: 'completed',
    termsDays: 14,
    workKind: 'weld',
    payCode: 'W',
    checklist: 'Roofs',
    closed: true,
  });
  const { facts, seen: seenFacts } = await jobFileView(reading(database), 'J1');
  await act(database, TESTER, saveJobFacts, 'J1', { ...facts, department: 'R', workKind: 'weld', seen: seenFacts.facts });
  const march = { from: '2031-03-01', to: '2031-03-31' };
  const { seen } = await openPayroll(reading(database), march);
  await act(database, TESTER, handOver, { ...march, seen, employees: null });
  const setting = await payrollSetting(reading(database));
  await act(database, TESTER, savePayrollSetting, { ...setting, declaration: 'All of it is paid.' });
  return exportedBook(database);
}
