import { displayPercent } from '../../../core/money/display';
import type { EstimateTotals } from '../../../core/estimates/estimate';
import { useCurrency } from '../../ground/company';

/** The price, and what is gained on it shown both ways, so that margin and markup are never taken for each other. */
export function PriceHeadline({ totals }: { totals: EstimateTotals }) {
  const { exact, code } = useCurrency();
  return (
    <>
      <p className="note m-0 text-[12.5px]">Price, {code}</p>
      <p className="m-0" style={{ font: "400 27px/1.1 'Source Serif 4', serif", fontVariantNumeric: 'tabular-nums' }}>
        {exact(totals.price)}
      </p>
      <p className="mb-3 mt-1">
        Margin <b>{displayPercent(totals.marginRate)} %</b> <span className="note">of the price</span>
        <br />
        Markup <b>{displayPercent(totals.markupRate)} %</b> <span className="note">on the cost</span>
      </p>
    </>
  );
}
