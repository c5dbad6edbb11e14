import { amount, percent, type Codec } from './codecs';

/** A part of a price: a percent of it, or an amount. */
export interface Part {
  rate: number | null;
  amount: number | null;
}

/** A part of a price: a percent where it ends with %, else an amount. */
export function part(digits: number): Codec<Part> {
  const money = amount(digits);
  return {
    parse: (text) => {
      const typed = text.trim();
      if (typed === '') return { ok: false, message: 'Expected an amount, or a percentage such as 25 %' };
      if (typed.endsWith('%')) {
        const rate = percent.parse(typed);
        return rate.ok ? { ok: true, value: { rate: rate.value, amount: null } } : rate;
      }
      // A bare "20" is as likely meant as 20 %.
      if (digits > 0 && /^\d{1,3}$/.test(typed) && Number(typed) > 0 && Number(typed) <= 100)
        return {
          ok: false,
          message: `Enter ${typed} % or ${money.format(Number(typed) * 10 ** digits)}: "${typed}" may be either`,
        };
      const value = money.parse(typed);
      return value.ok ? { ok: true, value: { rate: null, amount: value.value } } : value;
    },
    format: ({ rate, amount: value }) => (rate === null ? money.format(value ?? 0) : `${percent.format(rate)} %`),
    nothing: { rate: null, amount: 0 },
    look: 'figure',
  };
}
