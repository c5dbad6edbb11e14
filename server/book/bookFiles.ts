import { payrollRuns, payrollSettings } from '../payroll/bookFiles';
import { applicationLines, applications, receipts, retentionReleases } from '../billing/book/bookFiles';
import { reversedCertifications } from '../billing/book/reversedCertifications';
import { budget, budgetTransfers } from '../budget/bookFiles';
import { changeOrderLines, changeOrders } from '../changes/bookFiles';
import { commitments } from '../commitments/bookFile';
import { company, costCodes, customers, people, vendors } from '../company/book/bookFiles';
import { departments, jobKinds, workKinds } from '../company/book/listBookFiles';
import { chargeRates, dayworkTerms } from '../charging/book/chargeBookFiles';
import { dayworkCredits, dayworkInvoices } from '../daywork/book/dayworkBookFiles';
import { costs } from '../costs/bookFile';
import { awardLines, awards } from '../estimates/awardFiles';
import { dayEntries, daySheets, daySignatures } from '../daySheets/bookFiles';
import {
  estimateLines,
  estimateMarkups,
  estimateParts,
  estimatePatterns,
  estimatePrices,
  estimates,
} from '../estimates/bookFiles';
import { forecasts } from '../forecasts/bookFile';
import { billingInstalments, instalmentStages } from '../instalments/bookFiles';
import { checklistTemplates, jobChecklist, jobEvents, jobPapers, jobPeople } from '../jobFile/bookFiles';
import { jobMoves, jobs, jobTemplates, scheduleOfValues } from '../jobs/bookFiles';
import { burdens, employees, overtimeRules, payCodes, payRates, pieceRates, wageClasses } from '../labour/bookFiles';
import { time } from '../labour/timeBook/timeBookFile';
import { messages, offerQuestions, offers } from '../offers/bookFiles';
import { costPlan, jobSections } from '../plan/bookFiles';
import { buildUpComponents, buildUps, priceHistory, priceItems } from '../prices/bookFiles';
import { quotationAlternates, quotationPayments, quotations, terms } from '../quotations/bookFiles';
import type { BookFile } from '../bookFormat/bookFile';

/** Every file of the book, in the order they are read, saved and written: each after those it refers to. */
export const BOOK_FILES: readonly BookFile[] = [
  company,
  customers,
  vendors,
  costCodes,
  people,
  workKinds,
  departments,
  jobKinds,
  terms,
  priceItems,
  priceHistory,
  buildUps,
  buildUpComponents,
  checklistTemplates,
  jobTemplates,
  jobs,
  jobPeople,
  jobEvents,
  jobMoves,
  jobPapers,
  jobSections,
  costPlan,
  billingInstalments,
  instalmentStages,
  jobChecklist,
  estimates,
  estimateMarkups,
  estimateLines,
  estimateParts,
  estimatePrices,
  estimatePatterns,
  quotations,
  quotationAlternates,
  quotationPayments,
  scheduleOfValues,
  budget,
  awards,
  awardLines,
  changeOrders,
  changeOrderLines,
  offers,
  offerQuestions,
  messages,
  budgetTransfers,
  commitments,
  costs,
  wageClasses,
  employees,
  payRates,
  pieceRates,
  burdens,
  overtimeRules,
  payCodes,
  payrollRuns,
  payrollSettings,
  time,
  daySheets,
  daySignatures,
  dayEntries,
  chargeRates,
  dayworkTerms,
  applications,
  applicationLines,
  reversedCertifications,
  retentionReleases,
  dayworkInvoices,
  dayworkCredits,
  receipts,
  forecasts,
];
