import { GridFoot } from '../../kit/grid/GridFoot';
import { DraftNotes } from '../../kit/draft/DraftNotes';
import { SureButton } from '../../kit/SureButton';
import { amount, type Codec } from '../../kit/typed/codecs';
import { useCodecForm } from '../../kit/form/useCodecForm';
import { faultOf } from '../../ground/faults';
import { stableText } from '../../../core/lists/stableText';
import { useMemo, useState } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { displayPercent } from '../../../core/money/display';
import { formatPercentShortest, parseMarkup, ratio, WHOLE, type Rate } from '../../../core/money/rate';
import type { ApplicationView, BillPreview } from '../../../wire/billing';
import { useMay } from '../../ground/person';
import { useCurrency } from '../../ground/company';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import type { GridColumn } from '../../kit/grid/gridTypes';
import { useAsOf } from '../../ground/asOf';
import { DayInput } from '../../kit/form/DayInput';
import { Field } from '../../kit/Field';
import { Refused } from '../../kit/States';
import { AgainstCost, EarnedNote } from './AgainstCost';
import { BillForm } from './BillForm';
import { BillAbove } from './BillAbove';
import { SummaryColumn } from './SummaryColumn';
import { useApplicationDraft, type ApplicationDraftState } from './useApplicationDraft';

/** A percentage of the whole, from none to all of it. */
const wholePercent: Codec<Rate> = {
  parse: (text) => {
    const read = parseMarkup(text.trim().replace(/\s*%$/, ''));
    return read.ok && read.value >= 0 && read.value <= WHOLE
      ? { ok: true, value: read.value }
      : { ok: false, message: 'Enter a percentage from 0 to 100' };
  },
  format: formatPercentShortest,
  nothing: 0,
};

/** A draft application: per line, percent or amount to date, amount this period, or materials on site; the others follow. */
export function ApplicationDraft({ view, onStale }: { view: ApplicationView; onStale?: () => void }) {
  const draft = useApplicationDraft(view, onStale);
  const { worked } = draft;
  const { exact } = useCurrency();
  const columns = useColumns(draft);
  const may = useMay();
  const [preview, setPreview] = useState<BillPreview | null>(null);
  // Between the two acts it would wait for a certificate that never comes.
  const bills = view.neverCertifies && may('certify');
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_270px] gap-6 max-[1150px]:grid-cols-1">
      <div>
        <DraftHead draft={draft} />
        <DraftNotes notice={draft.notice} />
        <EntryGrid
          label={`Lines of application ${view.number}`}
          columns={columns}
          rows={draft.rows}
          onRows={draft.change}
          history={draft.history}
          autoFocus
          faults={worked.faults}
          grows={false}
          foot={<DraftFoot draft={draft} />}
          height="calc(100vh - 250px)"
        />
        <BillAbove view={view} above={worked.above} />
        <EarnedNote view={view} />
        {draft.refused && <Refused message={draft.refused.message} />}
      </div>
      <SummaryColumn
        view={view}
        summary={worked.summary}
        worked={stableText(worked.summary) === stableText(view.summary)}
        journal={bills ? preview?.journal : undefined}
      >
        {bills && <BillForm view={view} draft={draft} onPreview={setPreview} />}
        <div className="mb-3 flex flex-wrap gap-2">
          <button
            type="button"
            className={`button ${bills ? '' : 'main'}`}
            disabled={draft.submitting}
            onClick={() => void draft.submit()}
          >
            {bills ? 'Submit, without billing it yet' : `Submit, ${exact(worked.summary.payable)}`}
          </button>
          <SureButton onSure={() => void draft.deleteDraft()}>Delete draft</SureButton>
        </div>
      </SummaryColumn>
    </div>
  );
}

function DraftHead({ draft }: { draft: ApplicationDraftState }) {
  const { month } = useAsOf();
  const { day, dated, reference, setHead } = draft;
  return (
    <div className="mb-3 flex items-end gap-3">
      <Field label="Valuation date" className="shrink-0" fault={day ? undefined : 'Enter a date, e.g. 30 Apr 2031'}>
        <DayInput
          value={dated}
          month={month}
          className="w-[140px]"
          onText={(text) => setHead({ dated: text })}
          onBlur={() => day && displayDate(day) !== dated && setHead({ dated: displayDate(day) })}
        />
      </Field>
      <Field label="Reference" className="shrink-0">
        <input value={reference} className="w-[200px]" onChange={(event) => setHead({ reference: event.target.value })} />
      </Field>
      <WholeContract onTake={draft.takeWhole} />
      {draft.offSchedule && (
        <button type="button" className="button shrink-0" onClick={draft.takeSchedule}>
          Take the schedule’s figures
        </button>
      )}
      <span className="note pb-1 text-[12.5px]">
        Enter percentage, amount to date, or amount this period; the other columns update. Saved automatically.
      </span>
    </div>
  );
}

/** The whole contract billed at one percentage: typed once, it stands on every line, and each can be changed after. */
function WholeContract({ onTake }: { onTake: (percent: string) => void }) {
  const fields = useMemo(() => ({ percent: wholePercent }), []);
  const form = useCodecForm(fields, { percent: '' }, { partOfPage: true });
  const onSubmit = form.submit(({ percent }) => {
    onTake(formatPercentShortest(percent));
    form.restart({ percent: '' });
    return Promise.resolve();
  }, faultOf);
  return (
    <form aria-label="Whole contract" className="flex shrink-0 items-end gap-2" onSubmit={onSubmit} noValidate>
      {form.input('percent', 'All lines, %', { className: 'w-[76px]' })}
      <button className="button">Set</button>
    </form>
  );
}

function useColumns({ view, worked }: ApplicationDraftState): GridColumn[] {
  const { show, digits } = useCurrency();
  return useMemo((): GridColumn[] => {
    type Line = ApplicationView['lines'][number];
    const ofLine = (shown: (line: Line, i: number) => React.ReactNode) => (_row: unknown, i: number) => {
      const line = view.lines[i];
      return line && shown(line, i);
    };
    return [
      {
        key: 'line',
        title: 'Line',
        width: 'auto',
        show: ofLine(({ line, description }) => (
          <span className="block truncate" title={description}>
            <b>{line}</b> {description}
          </span>
        )),
      },
      { key: 'scheduled', title: 'Scheduled value', width: 102, numeric: true, show: ofLine((it) => show(it.scheduled)) },
      {
        key: 'earned',
        title: 'Earned by cost',
        width: 108,
        numeric: true,
        show: ofLine(({ line, earnedByCost }, i) => (
          <AgainstCost of={view} sovLine={line} billed={worked.lines[i]?.work ?? 0} earned={earnedByCost} />
        )),
      },
      { key: 'before', title: 'Previous', width: 100, numeric: true, show: ofLine((it) => show(it.previousWork)) },
      { key: 'percent', title: '% to date', width: 70, numeric: true },
      { key: 'work', title: 'Work to date', width: 104, numeric: true, codec: amount(digits) },
      { key: 'period', title: 'This period', width: 98, numeric: true, codec: amount(digits) },
      { key: 'materials', title: 'Materials on site', width: 92, numeric: true, codec: amount(digits) },
      { key: 'retention', title: 'Retention', width: 84, numeric: true, show: (_, i) => show(worked.lines[i]?.retention ?? 0) },
    ];
  }, [view, worked, show, digits]);
}

/** The totals of the columns, as core adds them up. */
function DraftFoot({ draft: { view, worked } }: { draft: ApplicationDraftState }) {
  const { show } = useCurrency();
  const { summary } = worked;
  const sum = (value: (line: ApplicationView['lines'][number]) => number) =>
    view.lines.reduce((total, line) => total + value(line), 0);
  const before = sum((line) => line.previousWork);
  const cells = [
    'Total',
    show(sum((line) => line.scheduled)),
    show(sum((line) => line.earnedByCost ?? 0)),
    show(before),
    displayPercent(ratio(summary.work, summary.contractSum)),
    show(summary.work),
    show(summary.work - before),
    show(summary.materials),
    show(summary.retention),
  ];
  return <GridFoot cells={cells} />;
}
