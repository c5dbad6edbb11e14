import { useMemo, useState } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { firstDay, periodOf } from '../../../core/calendar/plainDate';
import { LABOUR_LISTS, LABOUR_LIST_NAMES, isLabourList, type LabourList, type ListChange } from '../../../core/labour/lists';
import type { LabourListInput, LabourListRow } from '../../../wire/labourLists';
import { CHARGE_RUNG_NAMES, CHARGE_RUNGS } from '../../../core/charging/chargeRates';
import { RUNG_NAMES, RUNG_WORDS } from '../../../core/labour/payRates';
import {
  useLabourListQuery,
  useListsQuery,
  usePreviewLabourListMutation,
  useSaveLabourListMutation,
  useUsedLabourListsQuery,
} from '../../ground/api/api';
import { useAsOf, useWithMonth } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { Loaded } from '../../ground/Loaded';
import { FoldedRow } from '../../ground/FoldedRow';
import { SheetImport } from '../../ground/sheets/SheetImport';
import { useAttempt } from '../../ground/useAttempt';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { filledBeside } from '../../kit/grid/filledRow';
import type { GridRow } from '../../kit/grid/gridTypes';
import { readRows, rowOf } from '../../kit/grid/rowCodecs';
import { Field } from '../../kit/Field';
import { DayInput } from '../../kit/form/DayInput';
import { readDate } from '../../kit/typed/readDate';
import { PageHead } from '../../kit/PageHead';
import { StableForm, useTyped, type OnTyped } from '../../kit/StableForm';
import { Empty, Refused } from '../../kit/States';
import type { Faults } from '../../kit/typed/codecs';
import { LIST_NOTES, listCodecs, listColumns } from './listColumns';
import { ListChanges } from './ListChanges';

/** Where each list of labour is, and the rate finder. */
export function LabourLinks() {
  const { data: used = LABOUR_LIST_NAMES } = useUsedLabourListsQuery();
  // Employees are all that hours need; the other lists stand aside until they are used.
  const needed = (list: LabourList) => list === 'employees' || used.includes(list);
  const order = ['employees', ...LABOUR_LIST_NAMES.filter((it) => it !== 'employees')] as LabourList[];
  return (
    <div className="mb-3">
      <FoldedRow
        label="Lists of labour"
        title="Lists that nothing stands in yet"
        links={[
          ...order.map((it) => ({ to: `/set-up/labour/${it}`, text: LABOUR_LISTS[it].title, aside: !needed(it) })),
          { to: '/set-up/labour/rate-finder', text: 'Rate finder', aside: false },
        ]}
      />
    </div>
  );
}

/** A list that labour is cut or priced by, as a sheet: typed, pasted, and saved after what changes was seen. */
export function LabourListPage() {
  const { list } = useParams();
  const withMonth = useWithMonth();
  if (list === undefined) return <Navigate replace to={withMonth('/set-up/labour/employees')} />;
  return (
    <div className="page">
      <PageHead title="Labour" />
      <LabourLinks />
      {isLabourList(list) ? <LoadedList key={list} list={list} /> : <Empty title={`There is no list ${list} of labour`} />}
    </div>
  );
}

function LoadedList({ list }: { list: LabourList }) {
  const saved = useLabourListQuery({ list });
  return (
    <Loaded of={saved} what={LABOUR_LISTS[list].title.toLowerCase()}>
      {(data) => (
        <StableForm of={data} stamp={data.seen}>
          {(opened, onTyped) => <List list={list} opened={opened} onTyped={onTyped} />}
        </StableForm>
      )}
    </Loaded>
  );
}

/** What cells can be chosen from: the other lists as they are saved. */
function useOffered() {
  const { asOf } = useAsOf();
  const { data: lists } = useListsQuery({ asOf });
  const { data: employees } = useLabourListQuery({ list: 'employees' });
  const { data: kinds } = useLabourListQuery({ list: 'work-kinds' });
  const { data: classList } = useLabourListQuery({ list: 'wage-classes' });
  return useMemo(() => {
    const people = (employees?.rows ?? []) as { employee: string; name: string; wageClass: string }[];
    const listed = (classList?.rows ?? []) as { wageClass: string; description: string }[];
    // Without a list of their own, those that employees have.
    const used = [...new Set(people.map((it) => it.wageClass).filter(Boolean))]
      .sort()
      .map((wageClass) => ({ wageClass, description: '' }));
    return {
      lists: {
        jobs: lists?.jobs ?? [],
        clients: lists?.clients ?? [],
        costCodes: lists?.costCodes ?? [],
        departments: lists?.departments ?? [],
      },
      employees: people.map((it) => ({ value: it.employee, label: it.name })),
      workKinds: ((kinds?.rows ?? []) as { workKind: string; description: string }[]).map((it) => ({
        value: it.workKind,
        label: it.description,
      })),
      wageClasses: (listed.length > 0 ? listed : used).map((it) => ({ value: it.wageClass, label: it.description })),
    };
  }, [lists, employees, kinds, classList]);
}

interface ListProps {
  list: LabourList;
  opened: { seen: string; rows: LabourListRow[] };
  onTyped: OnTyped;
}

const isTyped = filledBeside('id');

/** The rows as typed: read, looked at before they are saved, and saved. */
function useList({ list, opened, onTyped }: ListProps) {
  const { month, asOf } = useAsOf();
  const { digits } = useCurrency();
  const [from, setFrom] = useState(() => displayDate(firstDay(periodOf(asOf))));
  const codecs = useMemo(() => listCodecs(month, digits)[list], [month, digits, list]);
  const start = useMemo(
    () => opened.rows.map((it): GridRow => ({ ...rowOf(codecs, it as never), id: String(it.id) })),
    [opened, codecs],
  );
  const [rows, setRows] = useState(start);
  const read = useMemo(() => {
    const faults: Faults = new Map();
    return { faults, rows: readRows(codecs, rows, faults, { filled: isTyped }) };
  }, [codecs, rows]);
  const [changes, setChanges] = useState<ListChange[] | null>(null);
  const { refused, setRefused, attempt } = useAttempt();
  const [look, looking] = usePreviewLabourListMutation();
  const [save, saving] = useSaveLabourListMutation();
  const changed = JSON.stringify(rows.filter(isTyped)) !== JSON.stringify(start);
  useTyped(changed, onTyped);
  const body = {
    list,
    seen: opened.seen,
    ...(list === 'employees' ? { ratesFrom: readDate(from, month) } : {}),
    rows: read.rows.map(({ row, value }) => ({ ...value, id: rows[row]?.id ? Number(rows[row].id) : null })),
  } as unknown as LabourListInput;
  const faults = new Map(read.faults);
  for (const { field, message } of refused?.faults ?? []) {
    const [, at, column] = field.split('.');
    const row = at === undefined ? undefined : read.rows[Number(at)]?.row;
    if (row !== undefined && column) faults.set(`${row}.${column}`, message);
  }
  return {
    codecs,
    from,
    setFrom: (text: string) => {
      setFrom(text);
      setChanges(null);
    },
    fromFault: readDate(from, month) === null,
    rows,
    faults,
    changes,
    refused,
    changed,
    busy: looking.isLoading || saving.isLoading,
    canLook: changed && read.faults.size === 0 && readDate(from, month) !== null,
    onRows: (next: GridRow[]) => {
      setRows(next);
      setChanges(null);
      setRefused(null);
    },
    look: () => attempt(async () => setChanges((await look({ body }).unwrap()).changes)),
    save: async () => {
      const count = changes?.length ?? 0;
      const message = `${LABOUR_LISTS[list].title} saved: ${count} ${count === 1 ? 'change' : 'changes'}`;
      if (await attempt(() => save({ body }).unwrap(), message)) onTyped(false);
    },
  };
}

/** The order in which rungs are looked at. */
function Rungs({ words }: { words: readonly string[] }) {
  return (
    <ol className="m-0 flex list-none flex-wrap gap-x-4 p-0">
      {words.map((it, i) => (
        <li key={it}>
          {i + 1}. {it}
        </li>
      ))}
    </ol>
  );
}

/** The order in which a rate is looked for, and where it can be tried. */
function RungOrder() {
  const withMonth = useWithMonth();
  return (
    <>
      <Rungs words={RUNG_NAMES.map((it) => RUNG_WORDS[it])} />
      <Link to={withMonth('/set-up/labour/rate-finder')}>Find the rate of an hour, and why it is that one</Link>
    </>
  );
}

function List(props: ListProps) {
  const { list } = props;
  const state = useList(props);
  const offered = useOffered();
  const { month } = useAsOf();
  const columns = useMemo(() => listColumns(list, state.codecs, offered), [list, state.codecs, offered]);
  return (
    <>
      <div className="mb-2 flex items-end justify-between gap-6">
        <div className="note max-w-[860px]">
          <p className="m-0">{LIST_NOTES[list]}</p>
          {list === 'pay-rates' && <RungOrder />}
          {list === 'charge-rates' && <Rungs words={CHARGE_RUNG_NAMES.map((it) => CHARGE_RUNGS[it])} />}
        </div>
        {list === 'employees' && (
          <Field
            label="Changed rates from"
            className="ml-auto shrink-0"
            fault={state.fromFault ? 'Enter a date, e.g. 1 Apr 2031' : undefined}
          >
            <DayInput value={state.from} month={month} className="w-[140px]" onText={state.setFrom} />
          </Field>
        )}
        <SheetImport
          of={`labour ${list}`}
          columns={columns}
          onRows={(rows) => state.onRows([...state.rows.filter(isTyped), ...rows])}
        />
      </div>
      <EntryGrid
        label={LABOUR_LISTS[list].title}
        columns={columns}
        rows={state.rows}
        onRows={state.onRows}
        faults={state.faults}
        blank={state.rows.length === 0 ? 12 : state.rows.length + 2}
        height={state.changes ? 'calc(100vh - 480px)' : 'calc(100vh - 300px)'}
      />
      <div className="mt-3 flex items-center gap-3">
        <button
          type="button"
          className={`button ${state.changes ? '' : 'main'}`}
          disabled={!state.canLook || state.busy}
          onClick={() => void state.look()}
        >
          {state.changed ? 'Show what changes' : 'Saved'}
        </button>
        {state.changes && state.changes.length > 0 && (
          <button type="button" className="button main" disabled={state.busy} onClick={() => void state.save()}>
            Save {state.changes.length} {state.changes.length === 1 ? 'change' : 'changes'}
          </button>
        )}
        <span className="note text-[12.5px]">
          Paste from a spreadsheet works in any cell. What is posted keeps its price: a change that would alter it is refused.
        </span>
      </div>
      {state.refused && <Refused message={state.refused.message} />}
      {state.changes && <ListChanges list={list} columns={columns} codecs={state.codecs} changes={state.changes} />}
    </>
  );
}
