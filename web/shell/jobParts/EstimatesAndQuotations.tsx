import { EstimatesPage } from '../../features/estimates/EstimatesPage';
import { QuotationsPart } from '../../features/quotations/QuotationsPart';

/** What the work was priced at, and what was offered for it. */
export function EstimatesAndQuotations() {
  return (
    <>
      <EstimatesPage />
      <QuotationsPart />
    </>
  );
}
