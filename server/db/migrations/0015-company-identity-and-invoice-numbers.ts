import type { Migration } from './migration';

/**
 * What stands on the documents a company sends; and invoices are numbered in a series of their own, without gaps, in the order they
 * were posted. An application keeps its number where its certification is reversed, and has it again when it is certified again.
 */
export const companyIdentityAndInvoiceNumbers: Migration = {
  name: '0015-company-identity-and-invoice-numbers',
  statements: [
    ...['registration_number', 'tax_number', 'phone', 'email', 'web', 'bank_details', 'logo'].map(
      (column) => `ALTER TABLE company ADD COLUMN ${column} TEXT NOT NULL DEFAULT ''`,
    ),
    'DROP TRIGGER invoice_no_update',
    'DROP TRIGGER certified_application_kept',
    'ALTER TABLE invoice ADD COLUMN number INTEGER NOT NULL DEFAULT 0',
    'ALTER TABLE application ADD COLUMN invoice_number INTEGER',
    `UPDATE invoice SET number = (SELECT place FROM (SELECT id, row_number() OVER (ORDER BY posted_on, id) AS place FROM invoice) n WHERE n.id = invoice.id)`,
    `UPDATE application SET invoice_number = (SELECT number FROM invoice i WHERE i.posting_id = application.posting_id) WHERE posting_id IS NOT NULL`,
    'CREATE UNIQUE INDEX invoice_number_once ON invoice (number)',
    'CREATE UNIQUE INDEX application_invoice_number_once ON application (invoice_number) WHERE invoice_number IS NOT NULL',
    `CREATE TRIGGER invoice_no_update BEFORE UPDATE ON invoice BEGIN SELECT RAISE(ABORT, 'What is posted in invoice is never changed'); END`,
    `CREATE TRIGGER certified_application_kept BEFORE UPDATE ON application
      WHEN OLD.status = 'certified' AND NOT (NEW.status = 'submitted' AND NEW.posting_id IS NULL AND NEW.invoice_number IS OLD.invoice_number
        AND EXISTS (SELECT 1 FROM posting WHERE reverses_id = OLD.posting_id))
      BEGIN SELECT RAISE(ABORT, 'A certified application is never changed'); END`,
  ],
};
