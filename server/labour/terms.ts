import type { Burden } from '../../core/labour/burdens';
import type { OvertimeRule } from '../../core/labour/overtime';
import type { PayRate } from '../../core/labour/payRates';
import type { PieceRate } from '../../core/labour/priceTime';
import type { Reader } from '../db/sql';
import { BURDENS, OVERTIME_RULES, PAY_RATES, PIECE_RATES } from './queries';

/** What labour is cut and priced by, as the database has it. */
export interface Terms {
  rates: PayRate[];
  pieceRates: PieceRate[];
  burdens: Burden[];
  rules: OvertimeRule[];
}

export async function loadTerms(sql: Reader): Promise<Terms> {
  const [rates, pieceRates, burdens, rules] = [
    await sql.all(PAY_RATES),
    await sql.all(PIECE_RATES),
    await sql.all(BURDENS),
    await sql.all(OVERTIME_RULES),
  ];
  return {
    rates: rates.map((it) => ({ ...it, atLeast: it.atLeast === 1 })),
    pieceRates: pieceRates.map((it) => ({ ...it, topsUp: it.topsUp === 1 })),
    burdens: burdens.map((it) => ({ ...it, onPremium: it.onPremium === 1 })),
    rules,
  };
}
