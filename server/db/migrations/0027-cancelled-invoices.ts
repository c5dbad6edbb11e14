import type { Migration } from './migration';

/** An invoice with receipts that were reversed stays when its certification is reversed, asks for nothing, and asks again once certified. */
export const cancelledInvoices: Migration = {
  name: '0027-cancelled-invoices',
  statements: [
    'DROP TRIGGER invoice_no_update',
    `CREATE TRIGGER invoice_no_update BEFORE UPDATE ON invoice
      WHEN NOT (EXISTS (SELECT 1 FROM posting WHERE reverses_id = OLD.posting_id)
        AND NEW.job_id = OLD.job_id AND NEW.kind = OLD.kind AND NEW.reference = OLD.reference AND NEW.number = OLD.number)
      BEGIN SELECT RAISE(ABORT, 'What is posted in invoice is never changed'); END`,
  ],
};
