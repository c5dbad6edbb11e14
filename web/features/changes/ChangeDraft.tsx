import { SureButton } from '../../kit/SureButton';
import { useMemo } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import type { PriceListView } from '../../../wire/prices';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { day, words } from '../../kit/typed/codecs';
import { DraftNotes } from '../../kit/draft/DraftNotes';
import { NewCodes } from '../../ground/costCodes/NewCodes';
import { Refused } from '../../kit/States';
import { useOpening } from '../../kit/useOpening';
import { ChangeEffects } from './ChangeEffects';
import { CostGrid, PriceGrid, sectionsOf } from './ChangeGrids';
import { FromCost, FromPriceList } from './ChangeSources';
import { useChangeDraft, useDraftActions, type ChangeDraftState, type DraftSource } from './useChangeDraft';

/** A draft change: its price side, its cost side, and what it would do to the job. */
export function ChangeDraft({ book, ...source }: DraftSource & { book: PriceListView }) {
  const draft = useChangeDraft(source);
  const { read } = draft;
  const { spent, lists } = source;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_290px] gap-6 max-[1150px]:grid-cols-1">
      <div>
        <DraftNotes notice={draft.notice} />
        <ChangeFacts draft={draft} />
        <SideHead title="Price" amount={read.price} />
        <PriceGrid draft={draft} spent={spent} />
        <SideHead title="Cost" amount={read.cost} />
        <CostGrid draft={draft} spent={spent} lists={lists} />
        <div className="mt-2 flex flex-wrap gap-2">
          <FromPriceList book={book} sections={sectionsOf(spent)} onRows={draft.addRows} />
          <FromCost spent={spent} onRows={draft.addRows} />
        </div>
        <NewCodes codes={draft.unknownCodes} />
        {draft.refused && <Refused message={draft.refused.message} />}
      </div>
      <DraftActions draft={draft} />
    </div>
  );
}

function ChangeFacts({ draft: { view, facts } }: { draft: ChangeDraftState }) {
  return (
    <>
      <div className="mb-2 grid grid-cols-[90px_minmax(0,1fr)_130px_150px_90px] items-end gap-3">
        {facts.input('number', 'Change')}
        {facts.input('title', 'Title', { autoFocus: view.version === 0 })}
        {facts.input('raisedOn', 'Raised on')}
        {facts.input('askedBy', 'Requested by')}
        {facts.input('daysAsked', 'Extension requested, days')}
      </div>
      <div className="mb-3 grid grid-cols-[minmax(0,1fr)_200px] gap-3">
        {facts.input('reason', 'Reason')}
        {facts.input('reference', 'Reference')}
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
  const { view, facts, changed, typed, discard } = draft;
  const { saveDraft, saving, deleteDraft, issueDraft, agreeDraft } = useDraftActions(draft);
  return (
    <aside aria-label="What it would do">
      <div className="mb-4 flex flex-col items-start gap-2">
        <button
          type="button"
          className={`button ${changed ? 'main' : ''}`}
          disabled={!changed || saving}
          onClick={() => void saveDraft()}
        >
          {changed ? `Save ${facts.text.number}` : 'Saved'}
        </button>
        {typed && <SureButton onSure={discard}>Discard what was typed</SureButton>}
        {view.version > 0 && <SureButton onSure={() => void deleteDraft()}>Delete draft</SureButton>}
      </div>
      {view.effect && !changed ? (
        <ChangeEffects effect={view.effect} />
      ) : (
        <p className="note">Save to see the effect on contract sum, estimate, margin and finish.</p>
      )}
      {view.version > 0 && <Issue draft={draft} onIssue={issueDraft} />}
      <Agreed draft={draft} onAgree={agreeDraft} />
    </aside>
  );
}

function Issue({ draft: { read, changed }, onIssue }: { draft: ChangeDraftState; onIssue: (on: string) => Promise<unknown> }) {
  const { exact } = useCurrency();
  const { month, entryDay } = useAsOf();
  const fields = useMemo(() => ({ on: day(month) }), [month]);
  const form = useCodecForm(fields, { on: displayDate(entryDay) });
  return (
    <form className="mt-4 flex items-end gap-2" onSubmit={form.submit(({ on }) => onIssue(on), faultOf)} noValidate>
      {form.input('on', 'Issued on', { className: 'w-[140px]' })}
      <button className={`button ${changed ? '' : 'main'}`}>Issue, {exact(read.price)}</button>
    </form>
  );
}

/** Where the client has agreed already, the change is raised, issued and approved in one step. */
function Agreed({
  draft: { read, facts },
  onAgree,
}: {
  draft: ChangeDraftState;
  onAgree: (on: string, by: string) => Promise<unknown>;
}) {
  const { exact } = useCurrency();
  const { month, entryDay } = useAsOf();
  const { open, show, button, onKeyDown } = useOpening();
  const fields = useMemo(() => ({ on: day(month), by: words('Enter who agreed for the client') }), [month]);
  const form = useCodecForm(fields, { on: displayDate(entryDay), by: facts.text.askedBy });
  if (!open)
    return (
      <button ref={button} type="button" className="button bare mt-4" onClick={show}>
        The client has agreed already …
      </button>
    );
  return (
    <form
      aria-label="Agreed already"
      className="mt-4 flex flex-col items-start gap-2"
      onSubmit={form.submit(({ on, by }) => onAgree(on, by), faultOf)}
      onKeyDown={onKeyDown}
      noValidate
    >
      {form.input('by', 'Agreed by', { className: 'w-[220px]', autoFocus: true })}
      {form.input('on', 'Agreed on', { className: 'w-[140px]' })}
      <button className="button main">Raise and approve, {exact(read.price)}</button>
    </form>
  );
}
