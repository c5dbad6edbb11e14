import { approvalCalls } from './approvals';
import { auditCalls } from './audit';
import { billingCalls } from './billing';
import { bookCalls } from './book';
import { chargingCalls } from './charging';
import { changeCalls } from './changes';
import { companyCalls } from './company';
import { correctionCalls } from './corrections';
import { costCalls } from './costs';
import { daySheetCalls } from './daySheets';
import { estimateCalls } from './estimates';
import { forecastCalls } from './forecasts';
import { instalmentCalls } from './instalments';
import { jobFileCalls } from './jobFile';
import { jobCalls } from './jobs';
import { labourCalls } from './labour';
import { labourListCalls } from './labourLists';
import { ledgerCalls } from './ledger';
import { masterCalls } from './masters';
import { payrollCalls } from './payroll';
import { peopleCalls } from './people';
import { planCalls } from './plan';
import { priceCalls } from './prices';
import { answerCalls, quotationCalls } from './quotations';
import { reportCalls } from './reports';
import { tenderCalls } from './tenders';
import { siteCalls } from './site';
import { userCalls } from './users';
import { waitingCalls } from './waiting';
import { weekSheetCalls } from './weekSheets';

/** Every way in, by name: one line a noun. */
export const CALLS = {
  ...companyCalls,
  ...userCalls,
  ...siteCalls,
  ...waitingCalls,
  ...approvalCalls,
  ...peopleCalls,
  ...masterCalls,
  ...bookCalls,
  ...priceCalls,
  ...jobCalls,
  ...jobFileCalls,
  ...tenderCalls,
  ...planCalls,
  ...forecastCalls,
  ...labourCalls,
  ...labourListCalls,
  ...weekSheetCalls,
  ...daySheetCalls,
  ...payrollCalls,
  ...instalmentCalls,
  ...estimateCalls,
  ...quotationCalls,
  ...answerCalls,
  ...changeCalls,
  ...costCalls,
  ...correctionCalls,
  ...billingCalls,
  ...chargingCalls,
  ...ledgerCalls,
  ...auditCalls,
  ...reportCalls,
};
