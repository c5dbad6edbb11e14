/** Why a request was turned down. Each code has its status in server/routes; a new one without does not compile. */
export type ErrorCode =
  | 'bad-input'
  | 'signed-out'
  | 'not-allowed'
  | 'needs-approval'
  | 'not-found'
  | 'conflict'
  | 'refused'
  | 'too-large'
  | 'too-often'
  | 'unavailable';

/** What is wrong, where: `field` is the path of the cell or input, as the person sees it. */
export interface Fault {
  field: string;
  message: string;
}

/** The one error Ledrin throws for what a person can mend. The message says what is wrong and what to do. */
export class LedrinError extends Error {
  constructor(
    readonly code: ErrorCode,
    message: string,
    readonly faults: readonly Fault[] = [],
  ) {
    super(message);
    this.name = 'LedrinError';
  }
}
