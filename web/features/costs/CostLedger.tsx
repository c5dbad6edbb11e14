import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { useAsOf } from '../../ground/asOf';
import { May } from '../../ground/person';
import { ColumnChoice, useHiddenColumns } from '../../kit/ColumnChoice';
import { askedOf } from './ledgerParams';
import { LedgerFilters } from './LedgerFilters';
import { Subtotals } from './CostSubtotals';
import { LedgerRows } from './LedgerRows';
import { PickBar } from './corrections/PickBar';
import { usePicks } from './corrections/usePicks';

/** Columns that may be hidden: all but when, where, how much and by which document. */
const CHOSEN = [
  ...[
    { key: 'section', title: 'Section' },
    { key: 'type', title: 'Type' },
    { key: 'reference', title: 'Reference' },
  ],
  ...[
    { key: 'party', title: 'Supplier / payee' },
    { key: 'description', title: 'Description' },
  ],
  ...[
    { key: 'order', title: 'PO / subcontract no.' },
    { key: 'hours', title: 'Hours' },
  ],
];
const LEAST_NEEDED = { below: 1200, columns: ['order'] };

/** The cost ledger of one job, or of all: filtered, sorted and summed on the server, scrolled a page at a time. */
export function CostLedger({ job }: { job?: string }) {
  const { asOf } = useAsOf();
  const [params] = useSearchParams();
  const filter = useMemo(() => {
    const asked = { ...askedOf(params, asOf), ...(job === undefined ? {} : { job }) };
    // The newest first, until somebody asks otherwise.
    return asked.sort ? asked : { ...asked, sort: 'dated' as const, descending: 'yes' as const };
  }, [asOf, params, job]);
  const by = params.get('by');
  const picks = usePicks();
  const [hidden, hide] = useHiddenColumns('ledrin.ledger.hidden', LEAST_NEEDED);
  return (
    <>
      <LedgerFilters filter={filter} job={job}>
        {!by && <ColumnChoice columns={CHOSEN} hidden={hidden} onHide={hide} />}
      </LedgerFilters>
      {!by && (
        <May do="correct-costs">
          <PickBar picks={picks} />
        </May>
      )}
      {by ? (
        <Subtotals filter={filter} by={by} />
      ) : (
        <LedgerRows key={JSON.stringify(filter)} filter={filter} showJob={job === undefined} picks={picks} hidden={hidden} />
      )}
    </>
  );
}
