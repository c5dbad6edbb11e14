import { useMemo } from 'react';
import { displayDate } from '../../../core/calendar/displayDate';
import { addMonths, lastDay, periodOf } from '../../../core/calendar/plainDate';
import { displayPercent } from '../../../core/money/display';
import { plural } from '../../../core/names/plural';
import { ratio } from '../../../core/money/rate';
import type { ForecastView } from '../../../wire/forecasts';
import { useForecastQuery, useSaveForecastMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { NO_GROUP } from '../../ground/costLines/lineLook';
import type { LookedLines } from '../../ground/costLines/useLookedLines';
import { Loaded } from '../../ground/Loaded';
import { useMay } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { asRead } from '../../kit/grid/gridTypes';
import { Legend, Sign } from '../../kit/Signs';
import { Empty, Refused } from '../../kit/States';
import { SureButton } from '../../kit/SureButton';
import { useTyped } from '../../kit/StableForm';
import { DraftNotes } from '../../kit/draft/DraftNotes';
import { useDraftRows } from '../../kit/draft/useDraftRows';
import { forecastCodecs, oneWay, rowsOf, rowsOfLines, workForecast } from './forecastForm';
import { useHistory } from '../../kit/useHistory';
import { WholeJob } from './WholeJob';
import { ForecastFoot, useForecastColumns, useGroupHeadings } from './forecastColumns';
import { faultsShown, laidBack, shownLines } from './shownLines';

interface JobForecastProps {
  job: string;
  /** As the cost lines are looked at; null: as they stand. */
  looked: LookedLines | null;
  /** Whether something is typed that is not saved. */
  onChanged?: (changed: boolean) => void;
}

/** What each cost line of a job will still cost, said at the end of a month. */
export function JobForecast({ job, looked, onChanged = () => undefined }: JobForecastProps) {
  const { asOf } = useAsOf();
  const may = useMay();
  const forecast = useForecastQuery({ job, asOf });
  const readOnly = may('forecast') ? null : 'You read the forecast; managers and accountants make it';
  return (
    <Loaded of={forecast} what="the forecast">
      {(data) =>
        data.lines.length === 0 ? (
          <Empty title="No budget and no cost to forecast from yet" />
        ) : (
          <Forecast key={`${job} ${data.on}`} job={job} view={data} readOnly={readOnly} looked={looked} onChanged={onChanged} />
        )
      }
    </Loaded>
  );
}

interface ForecastProps extends Required<JobForecastProps> {
  view: ForecastView;
  /** Why whoever looks only reads it; null where they make it. */
  readOnly: string | null;
}

function Forecast({ job, view, readOnly, looked, onChanged }: ForecastProps) {
  const { digits } = useCurrency();
  const codecs = useMemo(() => forecastCodecs(digits), [digits]);
  const start = useMemo(() => rowsOf(view, codecs), [view, codecs]);
  const draft = useDraftRows({ name: `forecast ${job} ${view.on}`, seen: view.seen, start, whole: true });
  const closed = view.closed ?? readOnly;
  const open = closed === null;
  const { setRows } = draft;
  const rows = useMemo(() => (open ? rowsOfLines(draft.rows, view) : start), [open, draft.rows, view, start]);
  const history = useHistory(rows, setRows);
  const worked = useMemo(() => workForecast(view, rows, codecs), [view, rows, codecs]);
  const shown = useMemo(() => shownLines(view.lines, looked), [view.lines, looked]);
  const columns = useForecastColumns(view, worked, codecs, shown, looked?.look.by ?? NO_GROUP);
  const headings = useGroupHeadings(view, worked, shown, (name) => looked?.onFold(name));
  const faults = useMemo(() => faultsShown(worked.faults, shown), [worked.faults, shown]);
  const inSight = useMemo(() => shown.places.map((place) => rows[place] ?? {}), [shown, rows]);
  const { refused, attempt } = useAttempt();
  const [save, { isLoading }] = useSaveForecastMutation();
  const changed = open && JSON.stringify(rows) !== JSON.stringify(start);
  useTyped(changed, onChanged);
  const saveIt = async () => {
    const body = { seen: view.seen, on: view.on, lines: worked.input };
    if (await attempt(() => save({ job, body }).unwrap(), `Forecast of ${displayDate(view.on)} saved`)) draft.forget();
  };
  return (
    <div>
      <div className="mb-2 flex items-end gap-4">
        <h2 className="whitespace-nowrap">Forecast, {displayDate(view.on)}</h2>
        <Outcome view={view} estimate={worked.lines.reduce((sum, it) => sum + it.estimate, 0)} />
        {changed && <SureButton onSure={draft.discard}>Discard what was typed</SureButton>}
        {open && <WholeJob view={view} rows={rows} worked={worked} codecs={codecs} onRows={setRows} />}
        {open && (
          <button
            type="button"
            className={`button ${changed ? 'main' : ''}`}
            disabled={!changed || worked.faults.size > 0 || isLoading}
            onClick={() => void saveIt()}
          >
            {changed ? 'Save forecast' : 'Saved'}
          </button>
        )}
      </div>
      {closed !== null && <p className="note">{closed}.</p>}
      <DraftNotes notice={draft.notice} />
      {refused && <Refused message={refused.message} />}
      {faults.hidden > 0 && (
        <p className="fault m-0 mb-1" role="status">
          {plural(faults.hidden, 'entry', 'entries')} to be corrected on lines that are folded or left out.
        </p>
      )}
      <EntryGrid
        label="Forecast by cost line"
        columns={open ? columns : columns.map(asRead)}
        rows={inSight}
        onRows={(next) => setRows(oneWay(laidBack(next, shown, rows), rows))}
        faults={faults.shown}
        grows={false}
        headings={headings}
        history={history}
        foot={<ForecastFoot view={view} worked={worked} shown={shown} />}
        height="calc(100vh - 320px)"
      />
      <p className="mt-1 mb-0 flex items-baseline gap-4 text-[12.5px]">
        <span className="note">
          Enter one of cost to complete, % done or hours to go; the estimate follows. A line left empty keeps its earlier
          forecast, or its budget. An estimate is never below cost and open commitments.
        </span>
        <span className="ml-auto shrink-0">
          <Legend names={['overrun', 'loss']} />
        </span>
      </p>
    </div>
  );
}

/** What the job comes to with what is typed, and how that moved since the end of last month. */
function Outcome({ view, estimate }: { view: ForecastView; estimate: number }) {
  const { exact, code } = useCurrency();
  const before = view.lines.reduce((sum, it) => sum + (it.lastMonth ?? 0), 0);
  const margin = (contract: number, cost: number) => displayPercent(ratio(contract - cost, contract));
  const lastMonth = lastDay(addMonths(periodOf(view.on), -1));
  return (
    <p className="m-0 flex grow flex-wrap items-baseline gap-x-5" role="status">
      <span>
        <span className="note">Estimate at completion, {code}</span> <b className="figure">{exact(estimate)}</b>
      </span>
      <span>
        <span className="note">margin</span>{' '}
        <b>
          {estimate > view.contractSum && <Sign name="loss" bare />} {margin(view.contractSum, estimate)} %
        </b>
      </span>
      <span className="note">
        {displayDate(lastMonth)}: {exact(before)}, {margin(view.contractSumLastMonth, before)} %
      </span>
    </p>
  );
}
