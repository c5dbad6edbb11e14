import { SureButton } from '../../kit/SureButton';
import { useUnsaved } from '../../kit/unsaved';
import { stableText } from '../../../core/lists/stableText';
import { useRemoveBuildUpMutation, useSaveBuildUpMutation } from '../../ground/api/api';
import { useMemo, useState } from 'react';
import { COST_TYPES } from '../../../core/costs/costType';
import { displayQuantity } from '../../../core/money/display';
import { buildUpFault, PriceList, unitCostOfShares, whereUsed } from '../../../core/prices/buildUp';
import type { BuildUpInput, PriceListView } from '../../../wire/prices';
import { useCurrency } from '../../ground/company';
import { HistoryLink } from '../../ground/HistoryLink';
import { useAttempt } from '../../ground/useAttempt';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { useCodecForm } from '../../kit/form/useCodecForm';
import type { GridColumn, GridRow } from '../../kit/grid/gridTypes';
import { columnsOf, readRows, rowOf } from '../../kit/grid/rowCodecs';
import { among, needed, optional, percent, words, type Faults } from '../../kit/typed/codecs';
import { showUnitCost, showUnitCostFull } from '../../kit/typed/unitCosts';
import { Refused } from '../../kit/States';
import { AchievedTable } from './AchievedTable';

interface EditorProps {
  book: PriceListView;
  start: BuildUpInput | null;
  onKept: (code: string) => void;
  onRemoved: () => void;
}

type Facts = Pick<BuildUpInput, 'code' | 'description' | 'unit'>;

const EMPTY: BuildUpInput = { code: '', description: '', unit: '', components: [] };
const FACTS = { code: words('Expected a code'), description: words('Expected a description'), unit: words() };

/** What is typed of a build-up, with what it comes to. */
function useBuildUp(book: PriceListView, start: BuildUpInput | null) {
  const texts = { code: start?.code ?? '', description: start?.description ?? '', unit: start?.unit ?? '' };
  const form = useCodecForm(FACTS, texts, { partOfPage: true });
  const facts = form.text;
  const [rows, setRows] = useState<GridRow[]>(() =>
    (start?.components ?? []).map((it) => rowOf(componentCodecs(book), { ...it, of: it.item || it.buildUp })),
  );
  const read = useMemo(() => readComponents(rows, facts, book), [rows, facts, book]);
  const prices = useMemo(() => {
    const others = book.buildUps.filter((it) => it.code !== read.input.code);
    return new PriceList(book.items, read.refused ? others : [...others, read.input]);
  }, [book, read]);
  const priced = prices.pricedComponents(read.input.code);
  const components = new Map(read.places.map((row, k) => [row, priced[k]]));
  return { form, facts, rows, setRows, read, components, shares: prices.unitShares(read.input.code) };
}

type Typed = ReturnType<typeof useBuildUp>;

/** One build-up: what goes into one unit, each component with what it comes to as it is typed. */
export function BuildUpEditor({ book, start, onKept, onRemoved }: EditorProps) {
  const typed = useBuildUp(book, start);
  const { facts, rows, setRows, read, components, shares } = typed;
  const columns = columnsOf(componentCodecs(book), componentColumns(book, start?.code, facts.unit, components));
  const used = start ? whereUsed(book.buildUps, { buildUp: start.code }) : [];
  const perUnit = { cost: unitCostOfShares(shares), hours: shares.reduce((sum, it) => sum + it.hours, 0) };
  return (
    <section aria-label={start ? `Build-up ${start.code}` : 'New build-up'}>
      <FactFields typed={typed} isNew={start === null} />
      <EntryGrid label="Components" columns={columns} rows={rows} onRows={setRows} faults={read.faults} height={330} blank={6} />
      <div className="mt-3 flex items-start justify-between gap-6">
        <Saving typed={typed} start={start} total={perUnit.cost} onKept={onKept} onRemoved={onRemoved} />
        <UnitCost typed={typed} total={perUnit.cost} />
      </div>
      {read.refused && <Refused message={read.refused} />}
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
  book: PriceListView,
  own: string | undefined,
  unit: string,
  components: Typed['components'],
): GridColumn[] {
  return [
    {
      key: 'of',
      title: 'Item or build-up',
      width: 130,
      offers: () => [
        ...book.items.map((it) => ({ value: it.code, label: it.description })),
        ...book.buildUps.filter((it) => it.code !== own).map((it) => ({ value: it.code, label: `build-up: ${it.description}` })),
      ],
    },
    {
      key: 'what',
      title: 'Description',
      width: 'auto',
      show: (_, i) => <span className="block truncate note">{components.get(i)?.description}</span>,
    },
    { key: 'quantity', title: `Quantity per ${unit || 'unit'}`, width: 104 },
    { key: 'unit', title: 'Unit', width: 50, show: (_, i) => components.get(i)?.unit },
    { key: 'waste', title: 'Waste %', width: 64 },
    { key: 'each', title: 'Unit cost', width: 84, numeric: true, show: (_, i) => showUnitCostFull(components.get(i)?.each ?? 0) },
    { key: 'hours', title: 'Hours', width: 66, numeric: true, show: (_, i) => displayQuantity(components.get(i)?.hours ?? 0) },
    { key: 'cost', title: 'Cost', width: 90, numeric: true, show: (_, i) => showUnitCostFull(components.get(i)?.cost ?? 0) },
  ];
}

function FactFields({ typed: { form }, isNew }: { typed: Typed; isNew: boolean }) {
  return (
    <div className="mb-2 flex items-start gap-3">
      {form.input('code', 'Code', { className: 'w-[120px]', disabled: !isNew, autoFocus: isNew })}
      {form.input('description', 'Description', { className: 'grow' })}
      {form.input('unit', 'Unit', { className: 'w-[70px]' })}
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
  const unchanged = stableText(start ?? EMPTY) === stableText(read.input);
  useUnsaved(!unchanged);
  const wrong = read.faults.size > 0 || read.refused !== null || facts.code.trim() === '' || facts.description.trim() === '';
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
        {start && <SureButton onSure={() => void removeIt(start)}>Remove</SureButton>}
        {start && <HistoryLink subject={start.code} about="price" />}
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

/** How the columns of the components are read. */
function componentCodecs(book: PriceListView) {
  const codes = new Set([...book.items, ...book.buildUps].map((it) => it.code));
  return { of: among(codes, 'price item or build-up'), quantity: needed, waste: optional(percent, 0) };
}

interface ReadComponents {
  faults: Faults;
  input: BuildUpInput;
  /** The row each component stands in. */
  places: number[];
  /** Why these components cannot be. */
  refused: string | null;
}

function readComponents(rows: readonly GridRow[], facts: Facts, book: PriceListView): ReadComponents {
  const faults: Faults = new Map();
  const items = new Set(book.items.map((it) => it.code));
  const read = readRows(componentCodecs(book), rows, faults);
  const components = read.map(({ value: { of, ...amounts } }) => ({
    ...(items.has(of) ? { item: of, buildUp: '' } : { item: '', buildUp: of }),
    ...amounts,
  }));
  const input = { code: facts.code.trim(), description: facts.description.trim(), unit: facts.unit.trim(), components };
  const others = book.buildUps.filter((it) => it.code !== input.code);
  return { faults, input, places: read.map((it) => it.row), refused: buildUpFault([input, ...others])?.message ?? null };
}
