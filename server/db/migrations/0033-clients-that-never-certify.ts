import type { Migration } from './migration';

/** A client who never certifies is billed in one act. */
export const clientsThatNeverCertify: Migration = {
  name: '0033-clients-that-never-certify',
  statements: ['ALTER TABLE client ADD COLUMN never_certifies INTEGER NOT NULL DEFAULT 0'],
};
