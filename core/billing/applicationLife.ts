import type { Life } from '../life/life';
import type { ApplicationStatus } from './application';

/** The life of an application for payment. Certified, it stays: the next one puts a difference right, unless nothing rests on it yet. */
export const APPLICATION_LIFE = {
  edit: { from: ['draft'], to: 'draft', only: 'only a draft can be changed' },
  delete: { from: ['draft'], to: null, only: 'only a draft can be deleted' },
  submit: { from: ['draft'], to: 'submitted', only: 'only a draft can be submitted' },
  return: { from: ['submitted'], to: 'draft', only: 'only a submitted one can be returned to draft' },
  bill: { from: ['draft'], to: 'certified', only: 'only a draft is billed in one act' },
  certify: { from: ['submitted'], to: 'certified', only: 'only a submitted one can be certified' },
  uncertify: { from: ['certified'], to: 'submitted', only: 'only a certified one has a certification to reverse' },
  receive: { from: ['certified'], to: 'certified', only: 'money is received on a certified one' },
} as const satisfies Life<ApplicationStatus, string>;
export type ApplicationMove = keyof typeof APPLICATION_LIFE;
