import { priceLine, totalsOf, type Estimate, type EstimateLine, type PricedEstimate, type PricedLine } from './estimate';

/**
 * Prices an estimate again and again as it is typed. A line that is the same object as before, under the same markups and
 * prices, is not priced again: of thousands of lines one changed costs one.
 */
export class LinePricer {
  private known = new WeakMap<EstimateLine, PricedLine>();
  private rates = '';
  private prices: Estimate['prices'] | null = null;

  constructor(private readonly digits: number) {}

  price(estimate: Estimate): PricedEstimate {
    const rates = JSON.stringify([estimate.typeMarkups, estimate.sectionMarkups]);
    if (rates !== this.rates || estimate.prices !== this.prices) {
      this.known = new WeakMap();
      this.rates = rates;
      this.prices = estimate.prices;
    }
    const lines = estimate.lines.map((line) => {
      const there = this.known.get(line);
      if (there) return there;
      const priced = priceLine(line, estimate, this.digits);
      this.known.set(line, priced);
      return priced;
    });
    return { lines, totals: totalsOf(lines, estimate) };
  }
}
