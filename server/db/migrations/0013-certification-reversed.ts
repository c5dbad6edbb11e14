import type { Migration } from './migration';

/** A certification that was reversed leaves its application submitted, and no invoice: only then may they be changed. */
export const certificationReversed: Migration = {
  name: '0013-certification-reversed',
  statements: [
    'DROP TRIGGER certified_application_kept',
    `CREATE TRIGGER certified_application_kept BEFORE UPDATE ON application
      WHEN OLD.status = 'certified' AND NOT (NEW.status = 'submitted' AND NEW.posting_id IS NULL
        AND EXISTS (SELECT 1 FROM posting WHERE reverses_id = OLD.posting_id))
      BEGIN SELECT RAISE(ABORT, 'A certified application is never changed'); END`,
    'DROP TRIGGER invoice_no_delete',
    `CREATE TRIGGER invoice_no_delete BEFORE DELETE ON invoice
      WHEN NOT EXISTS (SELECT 1 FROM posting WHERE reverses_id = OLD.posting_id)
      BEGIN SELECT RAISE(ABORT, 'What is posted in invoice is never changed'); END`,
  ],
};
