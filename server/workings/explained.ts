import type { Workings } from '../../core/workings/workings';

/** What a figure says of itself. */
export type Explained = Pick<Workings, 'rule' | 'operands' | 'entries'>;
