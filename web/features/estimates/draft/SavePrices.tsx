import { useState } from 'react';
import { present } from '../../../../core/errors/known';
import type { EstimateLine, Part } from '../../../../core/estimates/estimate';
import { stableText } from '../../../../core/lists/stableText';
import { plural } from '../../../../core/names/plural';
import type { PricedPartsInput, PriceMoves } from '../../../../wire/prices';
import { usePreviewPricedPartsMutation, useSavePricedPartsMutation, useSessionQuery } from '../../../ground/api/api';
import { PriceChanges } from '../../../ground/prices/PriceChanges';
import { useAttempt } from '../../../ground/useAttempt';
import { Field } from '../../../kit/Field';
import { isFilled } from '../../../kit/grid/filledRow';
import { ROW_KEY, type GridRow } from '../../../kit/grid/gridTypes';
import { Pop } from '../../../kit/Pop';
import { Refused } from '../../../kit/States';

interface SaveProps {
  line: EstimateLine;
  rows: readonly GridRow[];
  onRows: (rows: GridRow[]) => void;
  /** What is priced on the line cannot be read as it stands. */
  faulty: boolean;
}

/** A part with the row it is typed in and the code it would be saved under; empty: it is not saved. */
interface Coded {
  key: string;
  part: Part;
  code: string;
}

interface BuildUpFacts {
  code: string;
  description: string;
  unit: string;
}

/** Codes by the key of a part's row; what is not typed of the build-up is as on the line. */
interface Typed {
  codes: Readonly<Record<string, string>>;
  buildUp: Partial<BuildUpFacts>;
  reason: string;
}

const NOTHING: Typed = { codes: {}, buildUp: {}, reason: '' };

/** Saves what is priced on a line to the price list: as price items, and as a build-up of them. What changes there is shown first. */
export function SavePrices(props: SaveProps) {
  const [open, setOpen] = useState(false);
  // What is typed stays when the sheet is closed by the way.
  const [typed, setTyped] = useState<Typed>(NOTHING);
  return (
    <Pop
      button="Save to the price list …"
      disabled={props.faulty}
      title={props.faulty ? 'Put right what is marked on this line first' : undefined}
      className="max-h-[var(--radix-popover-content-available-height)] w-[640px] max-w-[94vw] overflow-y-auto p-4"
      open={open}
      onOpen={setOpen}
    >
      <SaveForm
        {...props}
        typed={typed}
        onTyped={setTyped}
        onDone={() => {
          setTyped(NOTHING);
          setOpen(false);
        }}
      />
    </Pop>
  );
}

interface FormProps extends SaveProps {
  typed: Typed;
  onTyped: (typed: Typed) => void;
  onDone: () => void;
}

function SaveForm({ line, rows, onRows, typed, onTyped, onDone }: FormProps) {
  const { data: session } = useSessionQuery();
  const { codes, reason } = typed;
  const facts: BuildUpFacts = { code: '', description: line.description, unit: line.unit, ...typed.buildUp };
  const [shown, setShown] = useState<{ of: PricedPartsInput; moves: PriceMoves } | null>(null);
  const [missing, setMissing] = useState(false);
  const { refused, attempt } = useAttempt();
  const [preview] = usePreviewPricedPartsMutation();
  const [save, { isLoading }] = useSavePricedPartsMutation();
  const coded = rows.filter(isFilled).flatMap((row, k): Coded[] => {
    const [key, part] = [row[ROW_KEY] ?? '', line.parts[k]];
    return part ? [{ key, part, code: (codes[key] ?? part.item).trim() }] : [];
  });
  const isMissing = (it: Coded) => facts.code.trim() !== '' && it.part.basis === 'per-unit' && it.code === '';
  const show = async (event: React.FormEvent) => {
    event.preventDefault();
    setMissing(true);
    if (coded.some(isMissing)) return;
    const of = inputOf(line, coded, facts, present(session).today, reason.trim());
    await attempt(async () => setShown({ of, moves: await preview({ body: of }).unwrap() }));
  };
  const make = async () => {
    if (!shown) return;
    const { of, moves } = shown;
    const said = `Saved to the price list: ${changed(moves)}`;
    if (!(await attempt(() => save({ body: { ...of, seen: moves.seen } }).unwrap(), said))) return;
    const codeOf = new Map(coded.map((it) => [it.key, it.code]));
    onRows(rows.map((row) => ({ ...row, item: codeOf.get(row[ROW_KEY] ?? '') ?? row.item ?? '' })));
    onDone();
  };
  const put = (change: (text: string) => Partial<Typed>) => (event: { target: { value: string } }) => {
    onTyped({ ...typed, ...change(event.target.value) });
    setShown(null);
  };
  const putFact = (fact: keyof BuildUpFacts) => put((text) => ({ buildUp: { ...typed.buildUp, [fact]: text } }));
  const faultOf = (it: Coded) => {
    if (missing && isMissing(it)) return 'Expected a code: the build-up is made of it';
    const at = shownItems(coded).findIndex((one) => one.code === it.code);
    return it.code === '' ? undefined : refused?.faults?.find(({ field }) => field.startsWith(`items.${at}.`))?.message;
  };
  return (
    <form aria-label="Save to the price list" className="flex flex-col gap-3" onSubmit={(event) => void show(event)} noValidate>
      <p className="note m-0">A code for each part to be saved as a price item. Line {line.line} stays as it is priced.</p>
      {coded.map((it) => (
        <div key={it.key} className="grid grid-cols-[130px_1fr] items-baseline gap-3">
          <Field label={`Code of ${it.part.description || 'the part'}`} fault={faultOf(it)}>
            <input value={codes[it.key] ?? it.part.item} onChange={put((text) => ({ codes: { ...codes, [it.key]: text } }))} />
          </Field>
          <span className="note self-end pb-1">
            {it.part.costType} {it.part.costCode}
            {it.part.basis === 'in-all' && ', for the whole line: not part of a build-up'}
          </span>
        </div>
      ))}
      <fieldset className="m-0 grid grid-cols-[130px_1fr_80px] gap-3 border-0 p-0">
        <Field
          label="Code of a build-up"
          hint="empty: none"
          fault={refused?.faults?.find((it) => it.field === 'buildUp.code')?.message}
        >
          <input value={facts.code} onChange={putFact('code')} />
        </Field>
        <Field label="Description of the build-up">
          <input value={facts.description} onChange={putFact('description')} />
        </Field>
        <Field label="Unit">
          <input value={facts.unit} onChange={putFact('unit')} />
        </Field>
      </fieldset>
      <Field label="Reason, for the history">
        <input value={reason} onChange={put((text) => ({ reason: text }))} />
      </Field>
      <button className="button self-start">Show what changes</button>
      {refused && <Refused message={refused.message} />}
      {shown && (
        <>
          <PriceChanges title="Price items that change" rows={shown.moves.items} />
          <PriceChanges title="Build-ups that change, cost of one unit" rows={shown.moves.buildUps} />
          <button
            type="button"
            className="button main self-start"
            disabled={isLoading || shown.moves.items.length + shown.moves.buildUps.length === 0}
            onClick={() => void make()}
          >
            Save {changed(shown.moves)}
          </button>
        </>
      )}
    </form>
  );
}

const changed = ({ items, buildUps }: PriceMoves) =>
  `${plural(items.length, 'price item')}, ${plural(buildUps.length, 'build-up')}`;

/** The parts to be saved, one item each: a part that says the same of the same item as one before it is not said again. */
function shownItems(coded: readonly Coded[]): PricedPartsInput['items'] {
  const items = new Map<string, PricedPartsInput['items'][number]>();
  for (const { code, part } of coded) {
    const { description, unit, costType, costCode, unitCost, markup } = part;
    const item = { code, description, unit, costType, costCode, unitCost, markup };
    if (code !== '') items.set(stableText(item), item);
  }
  return [...items.values()];
}

/** The build-up is made of the line's own build-up, and of what is priced for each unit. */
function inputOf(line: EstimateLine, coded: readonly Coded[], facts: BuildUpFacts, on: string, reason: string): PricedPartsInput {
  const { code, description, unit } = facts;
  const own = line.buildUp === '' ? [] : [{ item: '', buildUp: line.buildUp, quantity: 10_000, waste: 0 }];
  const each = coded.filter(({ part }) => part.basis === 'per-unit');
  const components = [...own, ...each.map((it) => ({ item: it.code, buildUp: '', quantity: it.part.quantity, waste: 0 }))];
  return {
    items: shownItems(coded),
    buildUp: code.trim() === '' ? null : { code: code.trim(), description: description.trim(), unit: unit.trim(), components },
    on,
    reason,
  };
}
