/** What a report's cell holds: amounts in minor units, per cents in millionths, hours in ten-thousandths. */
export type ColumnKind = 'text' | 'integer' | 'date' | 'amount' | 'percent' | 'hours';
