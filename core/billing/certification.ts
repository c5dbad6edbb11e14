import { present } from '../errors/known';
import { certifiedToDate, lastCertified, valueApplication, type Application, type BillingJob } from './application';
import type { Journal } from '../ledger/journal';
import { certifiedApplicationJournal, type CertifiedFigures } from './certifiedApplication';

/** What certifying an application posts: the figures saved with it and its journal. */
export interface Certification {
  figures: CertifiedFigures;
  journal: Journal;
}

/** Works out a certification. `application` carries its certified figures and day; `job` those certified before it. */
export function planCertification(job: BillingJob, application: Application): Certification {
  const on = present(application.certifiedOn);
  const valued = valueApplication(job, { ...application, status: 'certified' }, on);
  const figures = { gross: valued.gross, retention: valued.retention.total, due: valued.due, tax: valued.tax };
  const previous = lastCertified(job.applications, on, application.number);
  const before = previous ? certifiedToDate(job, previous) : { gross: 0, retention: 0 };
  return { figures, journal: certifiedApplicationJournal(on, figures, before) };
}
