import { useMemo } from 'react';
import type { RegisteredQuotation } from '../../../wire/tenders';
import { useQuotationsQuery } from '../../ground/api/api';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { PageHead } from '../../kit/PageHead';
import { Table } from '../../kit/table/Table';
import { quotationState } from './TendersPage';

/** The quotations of all jobs, and what became of them. */
export function SentQuotationsPage() {
  const quotations = useQuotationsQuery(undefined, { refetchOnMountOrArgChange: true });
  const columns = useQuotationColumns();
  return (
    <div className="page">
      <PageHead title="Quotations" />
      <Loaded of={quotations} what="the quotations">
        {(data) =>
          data.length === 0 ? (
            <p className="note">No quotations yet. A quotation is made from an estimate of a tender.</p>
          ) : (
            <Table label="Quotations" columns={columns} rows={data} rowKey={(it) => `${it.job}/${it.number}`} />
          )
        }
      </Loaded>
    </div>
  );
}

function useQuotationColumns() {
  const kinds = useColumnKinds();
  const { code } = useCurrency();
  return useMemo(() => {
    const job = (it: RegisteredQuotation) => `/jobs/${encodeURIComponent(it.job)}`;
    return [
      kinds.link<RegisteredQuotation>('job', 'Job', (it) => it.job, job),
      kinds.link<RegisteredQuotation>(
        'quotation',
        'Quotation',
        (it) => `${it.number} ${it.title}`,
        (it) => `${job(it)}/quotations/${it.number}`,
      ),
      kinds.text<RegisteredQuotation>('client', 'Client', (it) => it.clientName),
      kinds.amount<RegisteredQuotation>('price', `Price, ${code}`, (it) => it.total),
      kinds.text<RegisteredQuotation>('state', 'State', quotationState),
      kinds.day<RegisteredQuotation>('valid', 'Valid until', (it) => it.validUntil),
    ];
  }, [kinds, code]);
}
