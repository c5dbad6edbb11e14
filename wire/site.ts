import { download, query } from './call';

/** A job as whoever works on site sees it: no money, nowhere. */
export interface SiteJobRow {
  number: string;
  name: string;
  site: string;
  status: string;
}

export interface SiteJob extends SiteJobRow {
  manager: string;
  startsOn: string | null;
  finishesOn: string | null;
  /** Sections with their planned and actual days. */
  sections: {
    name: string;
    startsOn: string | null;
    finishesOn: string | null;
    startedOn: string | null;
    finishedOn: string | null;
  }[];
  /** Whom to call. */
  people: { side: string; name: string; role: string; phone: string }[];
  /** Drawings and other documents the office shows to the site. */
  documents: { document: string; name: string }[];
  /** What has to be there, of the checklist. */
  /** Of tasks, in ten-thousandths: hours and no money. */
  hours: { section: string; costCode: string; description: string; budgeted: number; used: number; toFinish: number }[];
  checklist: { item: string; person: string; dueOn: string | null; doneOn: string | null }[];
}

export const siteCalls = {
  siteJobs: query<SiteJobRow[]>('read-site')('/site/jobs'),
  siteJob: query<SiteJob>('read-site')('/site/jobs/:job'),
  siteDocument: download('read-site')('/site/jobs/:job/documents/:id'),
};
