import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import type { EstimateListRow } from '../../../wire/estimates';
import { useChooseEstimateMutation, useEstimateListQuery, useStartEstimateMutation } from '../../ground/api/api';
import { useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { useAttempt } from '../../ground/useAttempt';
import { BeginElsewhere, KeepAsPattern } from './BeginElsewhere';
import { Refused } from '../../kit/States';
import { Table } from '../../kit/table/Table';

/** The estimates of a job: any number, one chosen. */
export function EstimatesPage() {
  const { number: job = '' } = useParams();
  const list = useEstimateListQuery({ job });
  return (
    <Loaded of={list} what="the estimates">
      {(data) => <Estimates job={job} list={data} />}
    </Loaded>
  );
}

function Estimates({ job, list }: { job: string; list: readonly EstimateListRow[] }) {
  const withMonth = useWithMonth();
  const navigate = useNavigate();
  const { refused, attempt } = useAttempt();
  const [pair, setPair] = useState<readonly number[]>([]);
  const [start, starting] = useStartEstimateMutation();
  const base = `/jobs/${encodeURIComponent(job)}/estimates`;
  const startWith = (body: Parameters<typeof start>[0]['body']) =>
    attempt(async () => {
      const { number } = await start({ job, body }).unwrap();
      void navigate(withMonth(`${base}/${number}`));
    });
  const begin = (copyOf: number | null) => {
    const from = list.find((it) => it.number === copyOf);
    return startWith({
      name: from ? `${from.name}, copy` : list.length === 0 ? 'As measured' : `Estimate ${list.length + 1}`,
      copyOf: copyOf === null ? null : { job, estimate: copyOf },
    });
  };
  return (
    <>
      <div className="mb-2 flex items-end justify-between gap-6">
        <h2>Estimates</h2>
        <div className="flex gap-3">
          {list.length > 1 && <Compare base={base} pair={pair} />}
          <BeginElsewhere onBegin={startWith} />
          <button type="button" className="button main" disabled={starting.isLoading} onClick={() => void begin(null)}>
            New estimate
          </button>
        </div>
      </div>
      {refused && <Refused message={refused.message} />}
      {list.length === 0 ? (
        <p className="note">
          No estimate yet. One starts empty: type its lines, paste them from a spreadsheet, or price them by build-ups of the{' '}
          <Link to={withMonth('/tenders/build-ups')}>price list</Link>.
        </p>
      ) : (
        <List job={job} base={base} list={list} pair={pair} onPair={setPair} onCopy={(number) => void begin(number)} />
      )}
    </>
  );
}

/** Leads to two ticked estimates side by side. */
function Compare({ base, pair }: { base: string; pair: readonly number[] }) {
  const withMonth = useWithMonth();
  const [left, right] = [...pair].sort((a, b) => a - b);
  if (right === undefined)
    return (
      <span className="button off" aria-disabled>
        Tick two to compare them
      </span>
    );
  return (
    <Link className="button" to={withMonth(`${base}/compare/${left}/${right}`)}>
      Compare {left} and {right}
    </Link>
  );
}

interface ListProps {
  job: string;
  base: string;
  list: readonly EstimateListRow[];
  pair: readonly number[];
  onPair: (pair: readonly number[]) => void;
  onCopy: (number: number) => void;
}

function List({ job, base, list, pair, onPair, onCopy }: ListProps) {
  const kinds = useColumnKinds();
  const { show, code } = useCurrency();
  const columns = useMemo(() => {
    const tick = (number: number) =>
      onPair(pair.includes(number) ? pair.filter((it) => it !== number) : [...pair, number].slice(-2));
    return [
      {
        key: 'tick',
        title: <span className="sr-only">Tick</span>,
        width: 34,
        cell: (it: EstimateListRow) => (
          <input
            type="checkbox"
            aria-label={`Compare estimate ${it.number}`}
            checked={pair.includes(it.number)}
            onChange={() => tick(it.number)}
          />
        ),
      },
      kinds.link<EstimateListRow>(
        'estimate',
        'Estimate',
        (it) => `${it.number} ${it.name}`,
        (it) => `${base}/${it.number}`,
      ),
      { ...kinds.text<EstimateListRow>('state', 'State', (it) => it.status), cell: (it: EstimateListRow) => <State it={it} /> },
      kinds.count<EstimateListRow>('lines', 'Lines', (it) => it.lines),
      kinds.quantity<EstimateListRow>('hours', 'Hours', (it) => it.hours),
      kinds.amount<EstimateListRow>('cost', 'Cost', (it) => it.cost),
      {
        ...kinds.amount<EstimateListRow>('price', `Price, ${code}`, (it) => it.price),
        cell: (it: EstimateListRow) => <b>{show(it.price)}</b>,
      },
      kinds.percent<EstimateListRow>('margin', 'Margin, % of price', (it) => it.marginRate),
      kinds.percent<EstimateListRow>('markup', 'Markup, % on cost', (it) => it.markupRate),
      kinds.day<EstimateListRow>('saved', 'Saved', (it) => it.savedAt.slice(0, 10)),
      {
        key: 'acts',
        title: <span className="sr-only">What to do</span>,
        right: true,
        cell: (it: EstimateListRow) => (
          <>
            {!it.chosen && it.refused.choose === null && <Choose job={job} estimate={it.number} />}
            <button type="button" className="button bare" onClick={() => onCopy(it.number)}>
              Copy
            </button>
            <KeepAsPattern job={job} estimate={it.number} name={it.name} />
          </>
        ),
      },
    ];
  }, [kinds, show, code, job, base, pair, onPair, onCopy]);
  return <Table label="Estimates" columns={columns} rows={list} rowKey={(it) => String(it.number)} />;
}

function State({ it }: { it: EstimateListRow }) {
  return (
    <>
      {it.status === 'draft' ? 'draft' : `${it.status} ${displayDate(it.acceptedOn ?? it.sentOn)}`}
      {it.chosen && <b className="text-[var(--accent)]"> · chosen</b>}
    </>
  );
}

function Choose({ job, estimate }: { job: string; estimate: number }) {
  const [choose] = useChooseEstimateMutation();
  const { refused, attempt } = useAttempt();
  return (
    <>
      {refused && <span className="fault">{refused.message}</span>}
      <button type="button" className="button bare" onClick={() => void attempt(() => choose({ job, estimate }).unwrap())}>
        Choose
      </button>
    </>
  );
}
