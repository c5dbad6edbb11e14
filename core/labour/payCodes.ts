import type { PayClass } from './payClass';

/** Under what payroll pays an hour of a class, on a job or for a kind of work, or anywhere. */
export interface PayCode {
  payCode: string;
  pay: PayClass;
  /** Empty: of any; never beside a kind of work. */
  job: string;
  workKind: string;
}

/** The pay code of a line: by its job, else by its kind of work, else by its class alone, else the class's own name. */
export function payCodeOf(codes: readonly PayCode[], { pay, job, workKind }: Omit<PayCode, 'payCode'>): string {
  const of = (wanted: Pick<PayCode, 'job' | 'workKind'>) =>
    codes.find((it) => it.pay === pay && it.job === wanted.job && it.workKind === wanted.workKind)?.payCode;
  return (
    (job === '' ? undefined : of({ job, workKind: '' })) ??
    (workKind === '' ? undefined : of({ job: '', workKind })) ??
    of({ job: '', workKind: '' }) ??
    pay
  );
}
