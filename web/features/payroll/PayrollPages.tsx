import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { toast } from '../../kit/toast';
import { displayDate } from '../../../core/calendar/displayDate';
import { firstDay, periodOf } from '../../../core/calendar/plainDate';
import { displayQuantity } from '../../../core/money/display';
import { hrefOf } from '../../../wire/call';
import { CALLS } from '../../../wire/calls';
import type { OpenPayroll, PayrollProof, PayrollRun } from '../../../wire/payroll';
import {
  useHandOverMutation,
  useOpenPayrollQuery,
  usePayrollRunQuery,
  usePayrollRunsQuery,
  useUndoHandOverMutation,
} from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { HistoryLink } from '../../ground/HistoryLink';
import { Loaded } from '../../ground/Loaded';
import { May } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { Field } from '../../kit/Field';
import { DayInput } from '../../kit/form/DayInput';
import { PageHead } from '../../kit/PageHead';
import { Pop } from '../../kit/Pop';
import { Refused } from '../../kit/States';
import { SureButton } from '../../kit/SureButton';
import { Table } from '../../kit/table/Table';
import { readDate } from '../../kit/typed/readDate';
import { PayrollColumns } from './PayrollColumns';
import { PayrollTable } from './PayrollTable';

/** Posted time that payroll does not have yet, and what was handed over before. */
export function PayrollHandOverPage() {
  const { lastDay, month } = useAsOf();
  const [from, setFrom] = useState(displayDate(firstDay(periodOf(lastDay))));
  const [to, setTo] = useState(displayDate(lastDay));
  const [begins, ends] = [readDate(from, month), readDate(to, month)];
  const fault = (day: string | null | undefined) => (day ? undefined : 'Enter a date, e.g. 1 Apr 2031');
  const open = useOpenPayrollQuery(
    { from: begins ?? '', to: ends ?? '' },
    { skip: !begins || !ends, refetchOnMountOrArgChange: true },
  );
  return (
    <div className="page">
      <PageHead title="Payroll hand-over">
        <May do="set-up">
          <PayrollColumns />
        </May>
      </PageHead>
      <div className="mb-3 flex items-end gap-3">
        <Field label="Worked from" fault={fault(begins)} className="w-[150px]">
          <DayInput value={from} month={month} onText={setFrom} />
        </Field>
        <Field label="to" fault={fault(ends)} className="w-[150px]">
          <DayInput value={to} month={month} onText={setTo} />
        </Field>
      </div>
      {begins && ends && (
        <Loaded of={open} what="the posted time">
          {(data) => <Open key={data.seen} open={data} from={begins} to={ends} />}
        </Loaded>
      )}
      <Earlier />
    </div>
  );
}

function Open({ open, from, to }: { open: OpenPayroll; from: string; to: string }) {
  const { exact } = useCurrency();
  const navigate = useNavigate();
  const withMonth = useWithMonth();
  const people = useMemo(() => [...new Map(open.rows.map((it) => [it.employee, it.name]))], [open.rows]);
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const { refused, attempt } = useAttempt();
  const [handOver, { isLoading }] = useHandOverMutation();
  const rows = open.rows.filter((it) => !without.has(it.employee));
  const total = rows.reduce((sum, it) => sum + it.amount, 0);
  const hand = () =>
    attempt(async () => {
      const employees = without.size === 0 ? null : people.flatMap(([code]) => (without.has(code) ? [] : [code]));
      const { run } = await handOver({ body: { from, to, seen: open.seen, employees } }).unwrap();
      toast(`Hand-over ${run}: ${exact(total)}`);
      void navigate(withMonth(`/costs/payroll/${run}`));
    });
  if (open.rows.length === 0)
    return (
      <>
        <p>All posted time until {displayDate(to)} is handed over.</p>
        <Proof proof={open.proof} />
      </>
    );
  return (
    <>
      <PayrollTable rows={rows} />
      {open.earlier > 0 && (
        <p className="note mb-0">
          {open.earlier} {open.earlier === 1 ? 'line was' : 'lines were'} worked before {displayDate(from)}: corrections, and what
          came late.
        </p>
      )}
      <div className="mt-3 flex items-center gap-3">
        <button type="button" className="button main" disabled={rows.length === 0 || isLoading} onClick={() => void hand()}>
          Hand over {exact(total)}
        </button>
        <Pop
          button={without.size === 0 ? 'All people' : `${people.length - without.size} of ${people.length} people`}
          className="w-[280px] p-3"
        >
          <fieldset className="m-0 border-0 p-0">
            <legend className="note mb-1 p-0">Handed over now</legend>
            {people.map(([code, name]) => (
              <label key={code} className="flex items-center gap-2 py-0.5">
                <input
                  type="checkbox"
                  checked={!without.has(code)}
                  onChange={(event) =>
                    setWithout(new Set(event.target.checked ? [...without].filter((it) => it !== code) : [...without, code]))
                  }
                />
                {code} {name}
              </label>
            ))}
          </fieldset>
        </Pop>
        <span className="note text-[12.5px]">Each posted line goes once; a correction of it goes with the next hand-over.</span>
      </div>
      {refused && <Refused message={refused.message} />}
      <Proof proof={open.proof} />
    </>
  );
}

/** That nothing is lost between what is posted, what payroll has and what is left. */
function Proof({ proof: { posted, handedOver, left, ledger } }: { proof: PayrollProof }) {
  const { exact, code } = useCurrency();
  const rows: [string, { hours: number | null; amount: number }][] = [
    ['Posted, of all time', posted],
    ['Handed over', handedOver],
    ['Not handed over', left],
    ['Wages clearing in the ledger, of time', { hours: null, amount: ledger }],
  ];
  const difference = ledger - handedOver.amount - left.amount;
  return (
    <section aria-label="Proof" className="mt-5 max-w-[560px]">
      <h2 className="mb-1">Proof</h2>
      <table className="ledger static-foot">
        <thead>
          <tr>
            <th className="text-left">{code}</th>
            <th className="text-right">Hours</th>
            <th className="text-right">Pay</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([label, { hours, amount }]) => (
            <tr key={label}>
              <td>{label}</td>
              <td className="figure">{hours === null ? '' : displayQuantity(hours)}</td>
              <td className="figure">{exact(amount)}</td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          <tr>
            <td>{difference === 0 ? 'Ties' : 'Does not tie'}</td>
            <td />
            <td className="figure">{exact(difference)}</td>
          </tr>
        </tfoot>
      </table>
    </section>
  );
}

function Earlier() {
  const runs = usePayrollRunsQuery();
  const kinds = useColumnKinds();
  const columns = useMemo(
    () => [
      kinds.link<PayrollRun>(
        'run',
        'Hand-over',
        (it) => String(it.run),
        (it) => `/costs/payroll/${it.run}`,
      ),
      kinds.day<PayrollRun>('from', 'Worked from', (it) => it.from),
      kinds.day<PayrollRun>('to', 'to', (it) => it.to),
      kinds.day<PayrollRun>('handedOn', 'Handed over on', (it) => it.handedOn),
      kinds.text<PayrollRun>('handedBy', 'by', (it) =>
        it.undoneOn ? `${it.handedBy}; undone ${displayDate(it.undoneOn)}` : it.handedBy,
      ),
      {
        key: 'hours',
        title: 'Hours',
        value: (it: PayrollRun) => it.hours,
        number: displayQuantity,
        cell: (it: PayrollRun) => displayQuantity(it.hours),
      },
      kinds.amount<PayrollRun>('amount', 'Pay', (it) => it.amount),
    ],
    [kinds],
  );
  if (!runs.data || runs.data.runs.length === 0) return null;
  return (
    <section aria-label="Handed over before" className="mt-5">
      <h2 className="mb-1">Handed over before</h2>
      <Table label="Handed over before" columns={columns} rows={runs.data.runs} rowKey={(it) => String(it.run)} />
    </section>
  );
}

/** Takes back a hand-over whose file nobody has taken. */
function Undo({ run }: { run: number }) {
  const [undo] = useUndoHandOverMutation();
  const { refused, attempt } = useAttempt();
  return (
    <p>
      <SureButton className="button" onSure={() => void attempt(() => undo({ id: run }).unwrap(), `Hand-over ${run} is undone`)}>
        Undo this hand-over
      </SureButton>{' '}
      <span className="note">Possible until its file is taken.</span>
      {refused && <Refused message={refused.message} />}
    </p>
  );
}

/** One hand-over as it went, with its file. */
export function PayrollRunPage() {
  const { run = '' } = useParams();
  const found = usePayrollRunQuery({ id: Number(run) });
  const { exact } = useCurrency();
  return (
    <div className="page">
      <PageHead title={`Payroll hand-over ${run}`}>
        <div className="flex items-center gap-3">
          <HistoryLink subject={`payroll ${run}`} />
          <Link className="button main" reloadDocument to={hrefOf(CALLS.payrollCsv, { id: Number(run) })}>
            CSV for payroll
          </Link>
        </div>
      </PageHead>
      <Loaded of={found} what="the hand-over">
        {(data) => (
          <>
            <p className="mt-0">
              Worked {displayDate(data.from)} to {displayDate(data.to)}, handed over {displayDate(data.handedOn)} by{' '}
              {data.handedBy}
            </p>
            {data.undoneOn ? (
              <p>Undone on {displayDate(data.undoneOn)}: its hours wait for the next hand-over.</p>
            ) : (
              <PayrollTable rows={data.rows} />
            )}
            {data.undoRefused === null && <Undo run={data.run} />}
            <p role="status">
              {data.posted.lines} posted lines, {displayQuantity(data.posted.hours)} h, {exact(data.posted.amount)}:{' '}
              {data.posted.amount === data.rows.reduce((sum, it) => sum + it.amount, 0)
                ? 'the total above ties to them'
                : 'they do not tie'}
              .
            </p>
          </>
        )}
      </Loaded>
    </div>
  );
}
