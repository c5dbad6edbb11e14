import {
  useAddQuotationMutation,
  useEstimateListQuery,
  useJobQuery,
  useQuotationListQuery,
  useTermsQuery,
} from '../../ground/api/api';
import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { addDays } from '../../../core/calendar/plainDate';
import { displayDate } from '../../../core/calendar/displayDate';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import type { QuotationSummary } from '../../../wire/quotations';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { Refused } from '../../kit/States';
import { Table } from '../../kit/table/Table';

const USUAL_VALIDITY_DAYS = 60;

/** Of several terms it is the person's to choose which the job has. */
const onlyOne = <T,>(list: readonly T[]): T | undefined => (list.length === 1 ? list[0] : undefined);

/** Beneath the estimates: what was offered from them, and what came back. */
export function QuotationsPart() {
  const { number: job = '' } = useParams();
  const { data: list } = useQuotationListQuery({ job });
  const { data: estimates } = useEstimateListQuery({ job });
  const { data: terms } = useTermsQuery();
  const { asOf, lastDay } = useAsOf();
  const { data: of } = useJobQuery({ job, asOf });
  const base = `/jobs/${encodeURIComponent(job)}/quotations`;
  const columns = useQuotationColumns(base);
  const withMonth = useWithMonth();
  const navigate = useNavigate();
  const [fault, setFault] = useState<string | null>(null);
  const [save, { isLoading }] = useAddQuotationMutation();
  if (!list || !estimates || !terms || !of || (estimates.length === 0 && list.length === 0)) return null;
  const chosen = estimates.find((it) => it.chosen) ?? estimates[0];
  const make = async () => {
    if (!chosen) return;
    try {
      const { number } = await save({
        job,
        body: {
          version: 0,
          estimate: chosen.number,
          // What the client reads: an estimate's name is our own.
          title: of.name,
          presentation: 'section',
          quantities: true,
          unitPrices: false,
          contact: '',
          email: '',
          introduction: '',
          exclusions: '',
          terms: onlyOne(terms)?.body ?? '',
          validUntil: addDays(lastDay, USUAL_VALIDITY_DAYS),
          alternates: [],
          payments: [],
        },
      }).unwrap();
      void navigate(withMonth(`${base}/${number}`));
    } catch (error) {
      setFault(faultOf(error).message);
    }
  };
  return (
    <section aria-label="Quotations" className="mt-6">
      <div className="mb-1 flex items-end justify-between">
        <h2>Quotations</h2>
        {chosen && !estimates.some((it) => it.status === 'accepted') && (
          <button type="button" className="button" disabled={isLoading} onClick={() => void make()}>
            Make a quotation from estimate {chosen.number}
          </button>
        )}
      </div>
      {fault && <Refused message={fault} />}
      {list.length === 0 ? (
        <p className="note m-0">No quotations yet.</p>
      ) : (
        <Table label="Quotations of the job" columns={columns} rows={list} rowKey={(it) => String(it.number)} />
      )}
    </section>
  );
}

function useQuotationColumns(base: string) {
  const kinds = useColumnKinds();
  const { code } = useCurrency();
  return useMemo(
    () => [
      kinds.link<QuotationSummary>(
        'quotation',
        'Quotation',
        (it) => `${it.number} ${it.title}`,
        (it) => `${base}/${it.number}`,
      ),
      kinds.text<QuotationSummary>('status', 'State', (it) => it.status),
      kinds.text<QuotationSummary>('estimate', 'From estimate', (it) => String(it.estimate)),
      kinds.day<QuotationSummary>('sent', 'Issued', (it) => it.sentOn),
      kinds.day<QuotationSummary>('valid', 'Valid until', (it) => it.validUntil),
      kinds.text<QuotationSummary>('answered', 'Answered', (it) =>
        it.answeredOn ? `${displayDate(it.answeredOn)} by ${it.answeredBy}` : '',
      ),
      kinds.amount<QuotationSummary>('price', `Price, ${code}`, (it) => it.total),
    ],
    [kinds, code, base],
  );
}
