import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { CHARGE_RUNGS } from '../../../core/charging/chargeRates';
import { MARK_WORDS } from '../../../core/charging/chargeMark';
import { formatUnitCost } from '../../../core/prices/unitCost';
import { plural } from '../../../core/names/plural';
import { displayPercent, displayQuantity } from '../../../core/money/display';
import type { ChargeEntry, JobCharging } from '../../../wire/charging';
import { useJobChargingQuery } from '../../ground/api/api';
import { addressOf } from '../../ground/addressOf';
import { useAsOf } from '../../ground/asOf';
import { useColumnKinds } from '../../ground/columnKinds';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { May, useMay } from '../../ground/person';
import { Table } from '../../kit/table/Table';
import type { TableColumn } from '../../kit/table/tableTypes';
import { toggledAll } from '../../kit/table/toggled';
import { ViewSwitch } from '../../kit/ViewSwitch';
import { DayworkRun } from './DayworkRun';
import { Invoices } from './Invoices';
import { MarkBar } from './MarkBar';
import { Markups } from './Markups';
import { Ceiling } from './UnbilledPage';

const VIEWS = [
  ['unbilled', 'Charged and held'],
  ['others', 'Not charged'],
] as const;
type Shown = (typeof VIEWS)[number][0];

/** What is charged of a job's cost, entry by entry: marked, worded and invoiced from here. */
export function JobChargingPage() {
  const { number = '' } = useParams();
  const { asOf } = useAsOf();
  const [shown, setShown] = useState<Shown>('unbilled');
  const charging = useJobChargingQuery({ job: number, asOf, show: shown });
  return (
    <Loaded of={charging} what={`what is charged on job ${number}`}>
      {(data) => (
        <>
          <Head data={data} shown={shown} onShow={setShown} />
          <Entries key={shown} job={number} data={data} shown={shown} />
          {data.invoices.length > 0 && <Invoices job={number} rows={data.invoices} />}
        </>
      )}
    </Loaded>
  );
}

function Head({ data, shown, onShow }: { data: JobCharging; shown: Shown; onShow: (shown: Shown) => void }) {
  const { exact } = useCurrency();
  const { unbilled: it } = data;
  return (
    <div className="mb-3 flex flex-wrap items-end gap-x-8 gap-y-2">
      <ViewSwitch label="Cost shown" views={VIEWS} shown={shown} onShow={onShow} />
      <Figure title="To charge, on no invoice" value={exact(it.charge)} />
      <Figure title="Its cost" value={exact(it.cost)} />
      {it.heldEntries > 0 && <Figure title="Held" value={exact(it.heldCharge)} />}
      <Figure title="Invoiced" value={exact(it.invoiced)} />
      {it.ceiling !== null && (
        <span>
          <span className="note block text-[12.5px]">Ceiling</span>
          <b className="figure">
            <Ceiling job={it} />
          </b>
        </span>
      )}
      <span className="ml-auto">
        <May do="post-costs">
          <Markups job={it.job} data={data} />
        </May>
      </span>
    </div>
  );
}

function Figure({ title, value }: { title: string; value: string }) {
  return (
    <span>
      <span className="note block text-[12.5px]">{title}</span>
      <b className="figure">{value}</b>
    </span>
  );
}

/** By what an entry is charged, in words. */
function chargedBy(it: ChargeEntry, digits: number): string {
  if (it.rate !== null && it.rung !== null) return `${formatUnitCost(it.rate, digits)} an hour, by ${CHARGE_RUNGS[it.rung]}`;
  if (!it.marked) return 'at cost';
  return `cost + ${displayPercent(it.marked)} %${it.markup === null ? '' : ', its own'}`;
}

function Entries({ job, data, shown }: { job: string; data: JobCharging; shown: Shown }) {
  const { exact, digits } = useCurrency();
  const kinds = useColumnKinds();
  const may = useMay();
  const marks = may('post-costs');
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const rows = data.entries;
  // What is gone, or shows no more, is picked no more.
  const chosen = useMemo(() => rows.filter((it) => picked.has(it.id)), [rows, picked]);
  const columns = useMemo(
    (): TableColumn<ChargeEntry>[] => [
      ...(marks
        ? [
            {
              key: 'pick',
              title: <span className="sr-only">Picked</span>,
              label: 'Picked',
              width: 28,
              cell: (it: ChargeEntry) => (
                <input
                  type="checkbox"
                  tabIndex={-1}
                  aria-label={`Pick ${it.reference}, ${it.costCode}`}
                  checked={picked.has(it.id)}
                  onChange={() => setPicked(toggledAll(picked, [it.id]))}
                />
              ),
            },
          ]
        : []),
      kinds.day<ChargeEntry>('dated', 'Date', (it) => it.dated),
      kinds.link<ChargeEntry>(
        'reference',
        'Reference',
        (it) => it.reference || 'document',
        (it) =>
          addressOf(
            it.sheet === null
              ? { place: 'posting', document: String(it.postingId) }
              : { place: 'week-sheet', document: it.sheet },
          ),
      ),
      kinds.text<ChargeEntry>('party', 'Who', (it) => it.party, { cut: true }),
      kinds.text<ChargeEntry>('code', 'Line', (it) => [it.section, it.costCode, it.costType].filter(Boolean).join(' · ')),
      kinds.text<ChargeEntry>('words', 'Words', (it) => it.wording || it.description, {
        cut: true,
        cell: (it) => (it.wording === '' ? it.description : <i>{it.wording}</i>),
      }),
      {
        key: 'hours',
        title: 'Hours',
        value: (it) => it.hours,
        number: displayQuantity,
        adds: true,
        cell: (it) => (it.hours === null ? '' : displayQuantity(it.hours)),
      },
      kinds.amount<ChargeEntry>('cost', 'Cost', (it) => it.cost, { adds: true }),
      kinds.amount<ChargeEntry>('charge', shown === 'others' ? 'Would be charged' : 'Charged', (it) => it.charge, { adds: true }),
      kinds.text<ChargeEntry>('by', 'By', (it) => chargedBy(it, digits), { cut: true }),
      kinds.text<ChargeEntry>('mark', 'Mark', (it) => MARK_WORDS[it.mark], {
        cell: (it) => (
          <span className="whitespace-nowrap">
            {MARK_WORDS[it.mark]}
            {it.from !== null && it.from > it.postedOn && <span className="note"> from {it.countsFrom.slice(5)}</span>}
          </span>
        ),
      }),
    ],
    [kinds, marks, picked, shown, digits],
  );
  const sum = (of: readonly ChargeEntry[], value: (it: ChargeEntry) => number) => of.reduce((total, it) => total + value(it), 0);
  const ready = rows.filter((it) => it.mark === 'yes');
  const taken = chosen.length > 0 ? chosen.filter((it) => it.mark === 'yes') : ready;
  return (
    <>
      <Table
        label={shown === 'others' ? 'Cost that is not charged' : 'Cost that is charged or held'}
        columns={columns}
        rows={rows}
        rowKey={(it) => String(it.id)}
        onPick={
          marks
            ? (of) =>
                setPicked(
                  toggledAll(
                    picked,
                    of.map((it) => it.id),
                  ),
                )
            : undefined
        }
        rowClass={(it) => (it.mark === 'hold' ? 'italic' : '')}
        foot={{
          label: plural(rows.length, 'entry', 'entries'),
          cells: { cost: exact(sum(rows, (it) => it.cost)), charge: exact(sum(rows, (it) => it.charge)) },
        }}
        empty={
          shown === 'others'
            ? 'All cost of the job is charged, held or invoiced.'
            : 'Nothing is charged that is not invoiced. Pick entries under Not charged, and charge them.'
        }
        dense
      />
      {marks && <MarkBar job={job} picked={chosen} all={rows} onPick={setPicked} />}
      {shown === 'unbilled' && ready.length > 0 && may('certify') && (
        <DayworkRun
          what={`${chosen.length > 0 ? `the ${plural(taken.length, 'entry', 'entries')} picked` : `all ${plural(taken.length, 'entry', 'entries')}`}, ${exact(sum(taken, (it) => it.charge))}`}
          invoices={taken.length === 0 ? [] : [{ job, entries: chosen.length > 0 ? taken.map((it) => it.id) : null }]}
          reference={data.nextReference}
          onIssued={() => setPicked(new Set())}
        />
      )}
    </>
  );
}
