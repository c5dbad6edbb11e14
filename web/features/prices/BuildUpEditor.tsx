import { stableText } from '../../kit/stableText';
import { useRemoveBuildUpMutation, useSaveBuildUpMutation } from '../../ground/api/api';
import { useMemo, useState } from 'react';
import { COST_TYPES } from '../../../core/costs/costType';
import { displayQuantity } from '../../../core/money/display';
import { formatPercentShortest, formatQuantity } from '../../../core/money/rate';
import { findCycle, PriceBook, unitCostOfShares, whereUsed } from '../../../core/prices/buildUp';
import type { BuildUpInput, PriceBookView } from '../../../wire/prices';
import { useCurrency } from '../../ground/company';
import { useAttempt } from '../../ground/useAttempt';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { Field } from '../../kit/Field';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { needed, optional, percent, readAt, type Faults } from '../../kit/typed/codecs';
import { showUnitCost, showUnitCostFull } from '../../kit/typed/unitCosts';
import { Refused } from '../../kit/States';
import { AchievedTable } from './AchievedTable';

interface EditorProps {
  book: PriceBookView;
  start: BuildUpInput | null;
  onKept: (code: string) => void;
  onRemoved: () => void;
}

/** What is typed of a build-up, with what it comes to. */
function useBuildUp(book: PriceBookView, start: BuildUpInput | null) {
  const [facts, setFacts] = useState({ code: start?.code ?? '', description: start?.description ?? '', unit: start?.unit ?? '' });
  const [rows, setRows] = useState<GridRow[]>(() => (start?.components ?? []).map(componentRow));
  const read = useMemo(() => readComponents(rows, facts, book), [rows, facts, book]);
  const prices = useMemo(() => {
    const others = book.buildUps.filter((it) => it.code !== read.input.code);
    return new PriceBook(book.items, read.cycle ? others : [...others, read.input]);
  }, [book, read]);
  const priced = prices.pricedComponents(read.input.code);
  const components = new Map(read.places.map((row, k) => [row, priced[k]]));
  return { facts, setFacts, rows, setRows, read, components, shares: prices.unitShares(read.input.code) };
}

type Typed = ReturnType<typeof useBuildUp>;

/** One build-up: what goes into one unit, each component with what it comes to as it is typed. */
export function BuildUpEditor({ book, start, onKept, onRemoved }: EditorProps) {
  const typed = useBuildUp(book, start);
  const { facts, rows, setRows, read, components, shares } = typed;
  const columns = componentColumns(book, start?.code, facts.unit, components);
  const used = start ? whereUsed(book.buildUps, { buildUp: start.code }) : [];
  const perUnit = { cost: unitCostOfShares(shares), hours: shares.reduce((sum, it) => sum + it.hours, 0) };
  return (
    <section aria-label={start ? `Build-up ${start.code}` : 'New build-up'}>
      <Facts typed={typed} isNew={start === null} />
      <EntryGrid label="Components" columns={columns} rows={rows} onRows={setRows} faults={read.faults} height={330} blank={6} />
      <div className="mt-3 flex items-start justify-between gap-6">
        <Saving typed={typed} start={start} total={perUnit.cost} onKept={onKept} onRemoved={onRemoved} />
        <UnitCost typed={typed} total={perUnit.cost} />
      </div>
      {read.cycle && <Refused message={`A build-up cannot be made of itself: ${read.cycle.join(' → ')}`} />}
      {used.length > 0 && (
        <p className="note">
          Part of {used.map((it) => it.code).join(', ')}, which {used.length === 1 ? 'follows' : 'follow'} when this one changes.
        </p>
      )}
      {start && <AchievedTable buildUp={start} perUnit={perUnit} />}
    </section>
  );
}

function componentColumns(
  book: PriceBookView,
  own: string | undefined,
  unit: string,
  components: Typed['components'],
): GridColumn[] {
  return [
    {
      ...{ key: 'of', title: 'Item or build-up', width: 130 },
      offers: () => [
        ...book.items.map((it) => ({ value: it.code, label: it.description })),
        ...book.buildUps.filter((it) => it.code !== own).map((it) => ({ value: it.code, label: `build-up: ${it.description}` })),
      ],
    },
    {
      ...{ key: 'what', title: 'Description', width: 'auto' },
      show: (_, i) => <span className="block truncate note">{components.get(i)?.description}</span>,
    },
    { key: 'quantity', title: `For one ${unit || 'unit'}`, width: 92, numeric: true },
    { key: 'unit', title: 'Unit', width: 50, show: (_, i) => components.get(i)?.unit },
    { key: 'waste', title: 'Waste %', width: 64, numeric: true },
    { key: 'each', title: 'Each', width: 84, numeric: true, show: (_, i) => showUnitCostFull(components.get(i)?.each ?? 0) },
    { key: 'hours', title: 'Hours', width: 66, numeric: true, show: (_, i) => displayQuantity(components.get(i)?.hours ?? 0) },
    { key: 'cost', title: 'Cost', width: 90, numeric: true, show: (_, i) => showUnitCostFull(components.get(i)?.cost ?? 0) },
  ];
}

function Facts({ typed: { facts, setFacts }, isNew }: { typed: Typed; isNew: boolean }) {
  const set = (key: keyof typeof facts) => (event: { target: { value: string } }) =>
    setFacts({ ...facts, [key]: event.target.value });
  return (
    <div className="mb-2 flex items-end gap-3">
      <Field label="Code" className="w-[120px]">
        <input value={facts.code} onChange={set('code')} disabled={!isNew} />
      </Field>
      <Field label="Description" className="grow">
        <input value={facts.description} onChange={set('description')} />
      </Field>
      <Field label="Unit" className="w-[70px]">
        <input value={facts.unit} onChange={set('unit')} />
      </Field>
    </div>
  );
}

function Saving({
  typed: { facts, read },
  start,
  total,
  onKept,
  onRemoved,
}: Pick<EditorProps, 'start' | 'onKept' | 'onRemoved'> & { typed: Typed; total: number }) {
  const { digits } = useCurrency();
  const { refused, attempt } = useAttempt();
  const [save, { isLoading }] = useSaveBuildUpMutation();
  const [remove] = useRemoveBuildUpMutation();
  const unchanged = start !== null && stableText(start) === stableText(read.input);
  const wrong = read.faults.size > 0 || read.cycle !== null || facts.code.trim() === '' || facts.description.trim() === '';
  const saveIt = async () => {
    if (await attempt(() => save({ body: read.input }).unwrap(), `Build-up ${read.input.code} saved`)) onKept(read.input.code);
  };
  const removeIt = async ({ code }: BuildUpInput) => {
    if (await attempt(() => remove({ code }).unwrap(), `Build-up ${code} is removed`)) onRemoved();
  };
  return (
    <div>
      <div className="flex items-center gap-3">
        <button type="button" className="button main" disabled={wrong || unchanged || isLoading} onClick={() => void saveIt()}>
          {unchanged
            ? 'No changes'
            : `Save ${facts.code || 'the build-up'}, ${showUnitCost(total, digits)}${facts.unit && ` a ${facts.unit}`}`}
        </button>
        {start && (
          <button type="button" className="button bare" onClick={() => void removeIt(start)}>
            Remove
          </button>
        )}
      </div>
      {refused && <Refused message={refused.message} />}
    </div>
  );
}

/** What one unit costs, by type. */
function UnitCost({ typed: { facts, shares }, total }: { typed: Typed; total: number }) {
  const { code } = useCurrency();
  const byType = COST_TYPES.map((type) => ({ type, own: shares.filter((it) => it.costType === type) }));
  return (
    <table className="ledger static-foot w-[280px]">
      <tbody>
        {byType
          .filter(({ own }) => own.length > 0)
          .map(({ type, own }) => (
            <tr key={type}>
              <td>{type}</td>
              <td className="num note">
                {type === 'labour' ? `${displayQuantity(own.reduce((sum, it) => sum + it.hours, 0))} h` : ''}
              </td>
              <td className="num">{showUnitCostFull(unitCostOfShares(own))}</td>
            </tr>
          ))}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={2}>
            One {facts.unit || 'unit'}, {code}
          </td>
          <td className="num">{showUnitCostFull(total)}</td>
        </tr>
      </tfoot>
    </table>
  );
}

function componentRow(it: BuildUpInput['components'][number]): GridRow {
  return {
    of: it.item || it.buildUp,
    quantity: formatQuantity(it.quantity),
    waste: it.waste === 0 ? '' : formatPercentShortest(it.waste),
  };
}

interface ReadComponents {
  faults: Faults;
  input: BuildUpInput;
  /** The row each component stands in. */
  places: number[];
  cycle: string[] | null;
}

function readComponents(
  rows: readonly GridRow[],
  facts: { code: string; description: string; unit: string },
  book: PriceBookView,
): ReadComponents {
  const faults: Faults = new Map();
  const items = new Set(book.items.map((it) => it.code));
  const buildUps = new Set(book.buildUps.map((it) => it.code));
  const places: number[] = [];
  const components = rows.flatMap((row, i) => {
    const of = (row.of ?? '').trim();
    if (of === '' && (row.quantity ?? '').trim() === '' && (row.waste ?? '').trim() === '') return [];
    places.push(i);
    if (!items.has(of) && !buildUps.has(of))
      faults.set(`${i}.of`, of === '' ? 'Expected a price item or a build-up' : `There is no item or build-up ${of}`);
    const item = items.has(of);
    return [
      {
        item: item ? of : '',
        buildUp: item ? '' : of,
        quantity: readAt(faults, `${i}.quantity`, row.quantity, needed, 0),
        waste: readAt(faults, `${i}.waste`, row.waste, optional(percent, 0), 0),
      },
    ];
  });
  const input = { code: facts.code.trim(), description: facts.description.trim(), unit: facts.unit.trim(), components };
  return { faults, input, places, cycle: findCycle([input, ...book.buildUps.filter((it) => it.code !== input.code)]) };
}
