import { useMemo } from 'react';
import { Link } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayPercent } from '../../../core/money/display';
import type { TenderRow } from '../../../wire/tenders';
import { useTendersQuery } from '../../ground/api/api';
import { BegunDraft, NEW_TENDER } from '../../ground/BegunDraft';
import { useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { WaitingLine } from '../../ground/WaitingLine';
import { PageHead } from '../../kit/PageHead';
import { Empty } from '../../kit/States';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';

/** What is being priced, what it comes to, and what became of the offer. */
export function TendersPage() {
  const tenders = useTendersQuery(undefined, { refetchOnMountOrArgChange: true });
  const withMonth = useWithMonth();
  const columns = useTenderColumns();
  return (
    <div className="page">
      <PageHead title="Tenders">
        <Link className="button main" to={withMonth('/tenders/new')}>
          New tender
        </Link>
      </PageHead>
      <WaitingLine />
      <BegunDraft draft={NEW_TENDER} to="/tenders/new" one="tender" />
      <Loaded of={tenders} what="the tenders">
        {(data) =>
          data.length === 0 ? <NoTenders /> : <Table label="Tenders" columns={columns} rows={data} rowKey={(it) => it.job} />
        }
      </Loaded>
    </div>
  );
}

function NoTenders() {
  const withMonth = useWithMonth();
  return (
    <Empty title="No tenders yet">
      <Link className="button main" to={withMonth('/tenders/new')}>
        Set up the first tender
      </Link>
      <Link className="button" to={withMonth('/tenders/prices')}>
        Type or import prices
      </Link>
      <Link className="button" to={withMonth('/set-up')}>
        Import CSV files
      </Link>
    </Empty>
  );
}

const pathOf = (it: TenderRow) => `/jobs/${encodeURIComponent(it.job)}`;

function useTenderColumns(): TableColumn<TenderRow>[] {
  const kinds = useColumnKinds();
  const { show, code } = useCurrency();
  return useMemo(
    () => [
      {
        ...kinds.text<TenderRow>('tender', 'Tender', (it) => it.job),
        cell: (it) => <Door to={pathOf(it)} text={it.job} strong />,
      },
      kinds.text<TenderRow>('name', 'Name', (it) => it.name),
      {
        ...kinds.text<TenderRow>('status', 'Status', (it) => it.status),
        cell: (it) => (
          <>
            {it.status}
            {it.reason && it.status !== 'tender' && <span className="note"> {it.reason}</span>}
          </>
        ),
      },
      kinds.text<TenderRow>('client', 'Client', (it) => it.clientName),
      { ...kinds.text<TenderRow>('estimate', 'Estimate', (it) => it.estimate?.name ?? ''), cell: (it) => <EstimateOf it={it} /> },
      {
        ...kinds.amount<TenderRow>('price', `Price, ${code}`, (it) => it.estimate?.price ?? 0),
        cell: (it) => (it.estimate ? show(it.estimate.price) : '–'),
      },
      {
        ...kinds.percent<TenderRow>('margin', 'Margin %', (it) => it.estimate?.marginRate ?? 0),
        cell: (it) => (it.estimate ? displayPercent(it.estimate.marginRate) : '–'),
      },
      {
        ...kinds.text<TenderRow>('quotation', 'Quotation', (it) => String(it.quotation?.number ?? '')),
        cell: (it) => <QuotationOf it={it} />,
      },
      kinds.day<TenderRow>('valid', 'Valid until', (it) => it.quotation?.validUntil ?? null),
    ],
    [kinds, show, code],
  );
}

function Door({ to, text, strong = false }: { to: string; text: string; strong?: boolean }) {
  const withMonth = useWithMonth();
  return <Link to={withMonth(to)}>{strong ? <b>{text}</b> : text}</Link>;
}

function EstimateOf({ it }: { it: TenderRow }) {
  const { estimate } = it;
  if (!estimate && it.status !== 'tender') return <>–</>;
  if (!estimate) return <Door to={`${pathOf(it)}/estimates`} text="Price it" />;
  return (
    <>
      <Door to={`${pathOf(it)}/estimates/${estimate.number}`} text={`${estimate.number} ${estimate.name}`} />{' '}
      <span className="note">{estimate.status}</span>
    </>
  );
}

function QuotationOf({ it }: { it: TenderRow }) {
  const { quotation } = it;
  if (!quotation) return <span className="note">none</span>;
  return (
    <>
      <Door to={`${pathOf(it)}/quotations/${quotation.number}`} text={String(quotation.number)} />{' '}
      <span className="note">{quotationState(quotation)}</span>
    </>
  );
}

/** Where a quotation is, in words. */
export function quotationState({ status, sentOn, answeredOn, answeredBy }: NonNullable<TenderRow['quotation']>): string {
  if (status === 'sent') return `issued ${displayDate(sentOn)}`;
  return status === 'draft' ? 'draft' : `${status} ${displayDate(answeredOn)} by ${answeredBy}`;
}
