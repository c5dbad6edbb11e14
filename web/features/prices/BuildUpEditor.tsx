import { present } from '../../../core/errors/known';
import { useRemoveBuildUpMutation, useSaveBuildUpMutation } from '../../ground/api/api';
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import { COST_TYPES } from '../../../core/costs/costType';
import { displayQuantity } from '../../../core/money/display';
import { formatPercentShortest, formatQuantity, parsePercent } from '../../../core/money/rate';
import { findCycle, PriceBook, unitCostOfShares, whereUsed } from '../../../core/prices/buildUp';
import type { BuildUpInput, PriceBookView } from '../../../wire/prices';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { Field } from '../../kit/Field';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { readNeeded, showUnitCost, showUnitCostFull, type Faults } from '../../kit/typed/readCells';
import { Refused } from '../../kit/States';
import { AchievedTable } from './AchievedTable';

interface EditorProps {
  book: PriceBookView;
  start: BuildUpInput | null;
  onKept: (code: string) => void;
  onRemoved: () => void;
}

/** One build-up: what goes into one unit, each component with what it comes to as it is typed. */
export function BuildUpEditor({ book, start, onKept, onRemoved }: EditorProps) {
  const { digits, code: currency } = useCurrency();
  const [facts, setFacts] = useState({ code: start?.code ?? '', description: start?.description ?? '', unit: start?.unit ?? '' });
  const [rows, setRows] = useState<GridRow[]>(() => (start?.components ?? []).map(componentRow));
  const [refused, setRefused] = useState<string | null>(null);
  const [save, { isLoading }] = useSaveBuildUpMutation();
  const [remove] = useRemoveBuildUpMutation();
  const read = useMemo(() => readComponents(rows, facts, book), [rows, facts, book]);
  const prices = useMemo(() => {
    const others = book.buildUps.filter((it) => it.code !== read.input.code);
    return new PriceBook(book.items, read.cycle ? others : [...others, read.input]);
  }, [book, read]);
  const priced = prices.pricedComponents(read.input.code);
  const shares = prices.unitShares(read.input.code);
  const components = new Map(read.places.map((row, k) => [row, priced[k]]));
  const columns: GridColumn[] = [
    {
      key: 'of',
      title: 'Item or build-up',
      width: 130,
      offers: () => [
        ...book.items.map((it) => ({ value: it.code, label: it.description })),
        ...book.buildUps
          .filter((it) => it.code !== start?.code)
          .map((it) => ({ value: it.code, label: `build-up: ${it.description}` })),
      ],
    },
    {
      key: 'what',
      title: 'Description',
      width: 'auto',
      show: (_, i) => <span className="block truncate note">{components.get(i)?.description}</span>,
    },
    { key: 'quantity', title: `For one ${facts.unit || 'unit'}`, width: 92, numeric: true },
    { key: 'unit', title: 'Unit', width: 50, show: (_, i) => components.get(i)?.unit },
    { key: 'waste', title: 'Waste %', width: 64, numeric: true },
    { key: 'each', title: 'Each', width: 84, numeric: true, show: (_, i) => showUnitCostFull(components.get(i)?.each ?? 0) },
    { key: 'hours', title: 'Hours', width: 66, numeric: true, show: (_, i) => displayQuantity(components.get(i)?.hours ?? 0) },
    { key: 'cost', title: 'Cost', width: 90, numeric: true, show: (_, i) => showUnitCostFull(components.get(i)?.cost ?? 0) },
  ];
  const total = unitCostOfShares(shares);
  const unchanged = start !== null && JSON.stringify(start) === JSON.stringify(read.input);
  const keep = async () => {
    try {
      await save({ body: read.input }).unwrap();
      toast(`Build-up ${read.input.code} saved`);
      setRefused(null);
      onKept(read.input.code);
    } catch (error) {
      setRefused(faultOf(error).message);
    }
  };
  const take = async () => {
    try {
      await remove({ code: present(start).code }).unwrap();
      toast(`Build-up ${present(start).code} is removed`);
      onRemoved();
    } catch (error) {
      setRefused(faultOf(error).message);
    }
  };
  const used = start ? whereUsed(book.buildUps, { buildUp: start.code }) : [];
  const set = (key: keyof typeof facts) => (event: { target: { value: string } }) =>
    setFacts({ ...facts, [key]: event.target.value });
  return (
    <section aria-label={start ? `Build-up ${start.code}` : 'New build-up'}>
      <div className="mb-2 flex items-end gap-3">
        <Field label="Code">
          <input value={facts.code} onChange={set('code')} style={{ width: 120 }} disabled={start !== null} />
        </Field>
        <Field label="Description" className="grow">
          <input value={facts.description} onChange={set('description')} />
        </Field>
        <Field label="Unit">
          <input value={facts.unit} onChange={set('unit')} style={{ width: 70 }} />
        </Field>
      </div>
      <EntryGrid label="Components" columns={columns} rows={rows} onRows={setRows} faults={read.faults} height={330} blank={6} />
      <div className="mt-3 flex items-start justify-between gap-6">
        <div className="flex items-center gap-3">
          <button
            type="button"
            className="button main"
            disabled={
              read.faults.size > 0 ||
              read.cycle !== null ||
              facts.code.trim() === '' ||
              facts.description.trim() === '' ||
              unchanged ||
              isLoading
            }
            onClick={() => void keep()}
          >
            {unchanged
              ? 'No changes'
              : `Save ${facts.code || 'the build-up'}, ${showUnitCost(total, digits)}${facts.unit && ` a ${facts.unit}`}`}
          </button>
          {start && (
            <button type="button" className="button bare" onClick={() => void take()}>
              Remove
            </button>
          )}
        </div>
        <table className="ledger static-foot" style={{ width: 280 }}>
          <tbody>
            {COST_TYPES.map((type) => {
              const own = shares.filter((it) => it.costType === type);
              if (own.length === 0) return null;
              return (
                <tr key={type}>
                  <td>{type}</td>
                  <td className="num note">
                    {type === 'labour' ? `${displayQuantity(own.reduce((sum, it) => sum + it.hours, 0))} h` : ''}
                  </td>
                  <td className="num">{showUnitCostFull(unitCostOfShares(own))}</td>
                </tr>
              );
            })}
          </tbody>
          <tfoot>
            <tr>
              <td colSpan={2}>
                One {facts.unit || 'unit'}, {currency}
              </td>
              <td className="num">{showUnitCostFull(total)}</td>
            </tr>
          </tfoot>
        </table>
      </div>
      {read.cycle && <Refused message={`A build-up cannot be made of itself: ${read.cycle.join(' → ')}`} />}
      {refused && <Refused message={refused} />}
      {used.length > 0 && (
        <p className="note">
          Part of {used.map((it) => it.code).join(', ')}, which {used.length === 1 ? 'follows' : 'follow'} when this one changes.
        </p>
      )}
      {start && <AchievedTable buildUp={start} perUnit={{ cost: total, hours: shares.reduce((sum, it) => sum + it.hours, 0) }} />}
    </section>
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
    if ((row.quantity ?? '').trim() === '') faults.set(`${i}.quantity`, 'Expected how much goes into one unit');
    const waste = (row.waste ?? '').trim() === '' ? null : parsePercent(present(row.waste).trim().replace(/\s*%$/, ''));
    if (waste && !waste.ok) faults.set(`${i}.waste`, `"${row.waste}" is not a percentage from 0 to 100`);
    const item = items.has(of);
    return [
      {
        item: item ? of : '',
        buildUp: item ? '' : of,
        quantity: readNeeded(faults, `${i}.quantity`, row.quantity),
        waste: waste?.ok ? waste.value : 0,
      },
    ];
  });
  const input = { code: facts.code.trim(), description: facts.description.trim(), unit: facts.unit.trim(), components };
  return { faults, input, places, cycle: findCycle([input, ...book.buildUps.filter((it) => it.code !== input.code)]) };
}
