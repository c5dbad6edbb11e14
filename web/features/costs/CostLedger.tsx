import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { useAsOf } from '../../ground/asOf';
import type { LedgerParams } from '../../../wire/costs';
import { FILTERS } from './ledgerParams';
import { LedgerFilters } from './LedgerFilters';
import { Subtotals } from './CostSubtotals';
import { LedgerRows } from './LedgerRows';
import { PickBar } from './corrections/PickBar';
import { usePicks } from './corrections/usePicks';

/** The cost ledger of one job, or of all: filtered, sorted and summed on the server, scrolled a page at a time. */
export function CostLedger({ job }: { job?: string }) {
  const { asOf } = useAsOf();
  const [params] = useSearchParams();
  const filter = useMemo(() => {
    // The server checks what stands in an address.
    const asked: Record<string, string> & { asOf: string } = { asOf };
    for (const [name, key] of Object.entries(FILTERS)) {
      const value = params.get(name);
      if (value !== null && (value !== '' || key === 'section')) asked[key] = value;
    }
    if (job !== undefined) asked.job = job;
    // The newest first, until somebody asks otherwise.
    if (!asked.sort) Object.assign(asked, { sort: 'dated', descending: 'yes' });
    return asked as LedgerParams;
  }, [asOf, params, job]);
  const by = params.get('by');
  const picks = usePicks();
  return (
    <>
      <LedgerFilters filter={filter} job={job} />
      <PickBar picks={picks} />
      {by ? (
        <Subtotals filter={filter} by={by} />
      ) : (
        <LedgerRows key={JSON.stringify(filter)} filter={filter} showJob={job === undefined} picks={picks} />
      )}
    </>
  );
}
