import { useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import type { PriceBookView } from '../../../wire/prices';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { Field } from '../../kit/Field';
import { Refused } from '../../kit/States';
import { ChangeEffects } from './ChangeEffects';
import { CostGrid, PriceGrid, sectionsOf } from './ChangeGrids';
import { FromCost, FromPriceBook } from './ChangeSources';
import { useChangeDraft, useDraftActions, type ChangeDraftState, type DraftSource } from './useChangeDraft';

/** A draft change: its price side, its cost side, and what it would do to the job. */
export function ChangeDraft({ book, ...source }: DraftSource & { book: PriceBookView }) {
  const draft = useChangeDraft(source);
  const { form, setForm, read, faultsIn } = draft;
  const { spent, lists } = source;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_290px] gap-6">
      <div>
        <ChangeFacts draft={draft} />
        <SideHead title="Price: what the client pays" amount={read.price} />
        <PriceGrid form={form} setForm={setForm} faults={faultsIn('price.')} spent={spent} />
        <SideHead title="Cost: what it takes" amount={read.cost} />
        <CostGrid form={form} setForm={setForm} faults={faultsIn('cost.')} spent={spent} lists={lists} />
        <div className="mt-2 flex flex-wrap gap-2">
          <FromPriceBook book={book} sections={sectionsOf(spent)} onRows={draft.addRows} />
          <FromCost spent={spent} onRows={draft.addRows} />
        </div>
        {draft.refused && <Refused message={draft.refused.message} />}
      </div>
      <DraftActions draft={draft} />
    </div>
  );
}

function ChangeFacts({ draft: { view, fact, faultsIn } }: { draft: ChangeDraftState }) {
  const faults = faultsIn('facts.');
  return (
    <>
      <div className="mb-2 grid grid-cols-[90px_minmax(0,1fr)_120px_150px_90px] items-end gap-3">
        <Field label="Change" fault={faults.get('number')}>
          <input {...fact('number')} />
        </Field>
        <Field label="Title" fault={faults.get('title')}>
          <input {...fact('title')} autoFocus={view.version === 0} />
        </Field>
        <Field label="Raised on" fault={faults.get('raisedOn')}>
          <input {...fact('raisedOn')} />
        </Field>
        <Field label="Requested by">
          <input {...fact('askedBy')} />
        </Field>
        <Field label="Extension requested, days" fault={faults.get('daysAsked')}>
          <input {...fact('daysAsked')} className="text-right" />
        </Field>
      </div>
      <div className="mb-3 grid grid-cols-[minmax(0,1fr)_200px] gap-3">
        <Field label="Reason">
          <input {...fact('reason')} />
        </Field>
        <Field label="Reference">
          <input {...fact('reference')} />
        </Field>
      </div>
    </>
  );
}

function SideHead({ title, amount }: { title: string; amount: number }) {
  const { exact, code } = useCurrency();
  return (
    <div className="mb-1 mt-4 flex items-end justify-between">
      <h2>{title}</h2>
      <span role="status">
        {exact(amount)} {code}
      </span>
    </div>
  );
}

function DraftActions({ draft }: { draft: ChangeDraftState }) {
  const { exact } = useCurrency();
  const { lastDay } = useAsOf();
  const [issuedOn, setIssuedOn] = useState(displayDate(lastDay));
  const { view, form, read, changed } = draft;
  const { saveDraft, saving, deleteDraft, issueDraft } = useDraftActions(draft);
  return (
    <aside aria-label="What it would do">
      <div className="mb-4 flex flex-col items-start gap-2">
        <button
          type="button"
          className={`button ${changed ? 'main' : ''}`}
          disabled={!changed || saving}
          onClick={() => void saveDraft()}
        >
          {changed ? `Save ${form.facts.number}` : 'Saved'}
        </button>
        {view.version > 0 && (
          <button type="button" className="button bare" onClick={() => void deleteDraft()}>
            Delete draft
          </button>
        )}
      </div>
      {view.effect && !changed ? (
        <ChangeEffects effect={view.effect} />
      ) : (
        <p className="note">Save to see the effect on contract sum, estimate, margin and finish.</p>
      )}
      {view.version > 0 && (
        <form
          className="mt-4 flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void issueDraft(issuedOn);
          }}
        >
          <Field label="Issued on">
            <input value={issuedOn} className="w-[120px]" onChange={(event) => setIssuedOn(event.target.value)} />
          </Field>
          <button className={`button ${changed ? '' : 'main'}`}>Issue, {exact(read.price)}</button>
        </form>
      )}
    </aside>
  );
}
