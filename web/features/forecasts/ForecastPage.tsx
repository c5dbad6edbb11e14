import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { displayDate } from '../../../core/calendar/displayDate';
import { addMonths, lastDay, periodOf } from '../../../core/calendar/plainDate';
import { displayPercent } from '../../../core/money/display';
import { ratio } from '../../../core/money/rate';
import type { ForecastView } from '../../../wire/forecasts';
import { useForecastQuery, useSaveForecastMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useCurrency } from '../../ground/company';
import { faultOf } from '../../ground/faults';
import { useMay } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';
import { EntryGrid } from '../../kit/grid/EntryGrid';
import { asRead } from '../../kit/grid/gridTypes';
import { Sign } from '../../kit/Signs';
import { Empty, Refused, Waiting } from '../../kit/States';
import { StableForm, useTyped, type OnTyped } from '../../kit/StableForm';
import { forecastCodecs, oneWay, rowsOf, workForecast } from './forecastForm';
import { WholeJob } from './WholeJob';
import { ForecastFoot, useForecastColumns } from './forecastColumns';

/** What each cost line of a job will still cost, said at the end of a month. */
export function ForecastPage() {
  const { number: job = '' } = useParams();
  const { asOf } = useAsOf();
  const may = useMay();
  const { data, error, refetch } = useForecastQuery({ job, asOf });
  if (error) return <Refused message={faultOf(error).message} onRetry={refetch} />;
  if (!data) return <Waiting what="the forecast" />;
  if (data.lines.length === 0) return <Empty title="No budget and no cost to forecast from yet" />;
  return (
    <StableForm
      key={data.on}
      of={may('forecast') ? data : { ...data, closed: data.closed ?? 'You read the forecast; managers and accountants make it' }}
      stamp={`${data.on} ${data.seen}`}
    >
      {(opened, onTyped) => <Forecast job={job} view={opened} onTyped={onTyped} />}
    </StableForm>
  );
}

interface ForecastProps {
  job: string;
  view: ForecastView;
  onTyped: OnTyped;
}

function Forecast({ job, view, onTyped }: ForecastProps) {
  const { digits } = useCurrency();
  const codecs = useMemo(() => forecastCodecs(digits), [digits]);
  const start = useMemo(() => rowsOf(view, codecs), [view, codecs]);
  const [rows, setRows] = useState(start);
  const worked = useMemo(() => workForecast(view, rows, codecs), [view, rows, codecs]);
  const columns = useForecastColumns(view, worked, codecs);
  const { refused, attempt } = useAttempt();
  const [save, { isLoading }] = useSaveForecastMutation();
  const changed = JSON.stringify(rows) !== JSON.stringify(start);
  useTyped(changed, onTyped);
  const saveIt = async () => {
    const body = { seen: view.seen, on: view.on, lines: worked.input };
    if (await attempt(() => save({ job, body }).unwrap(), `Forecast of ${displayDate(view.on)} saved`)) onTyped(false);
  };
  return (
    <div>
      <div className="mb-2 flex items-end gap-4">
        <h2 className="whitespace-nowrap">Forecast, {displayDate(view.on)}</h2>
        <Outcome view={view} estimate={worked.lines.reduce((sum, it) => sum + it.estimate, 0)} />
        {view.closed === null && <WholeJob view={view} rows={rows} worked={worked} codecs={codecs} onRows={setRows} />}
        {view.closed === null && (
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
      {view.closed !== null && <p className="note">{view.closed}.</p>}
      {refused && <Refused message={refused.message} />}
      <EntryGrid
        label="Forecast by cost line"
        columns={view.closed === null ? columns : columns.map(asRead)}
        rows={rows}
        onRows={(next) => setRows(oneWay(next, rows))}
        faults={worked.faults}
        grows={false}
        foot={<ForecastFoot view={view} worked={worked} />}
        height="calc(100vh - 280px)"
      />
      <p className="note mt-1 text-[12.5px]">
        Enter one of cost to complete, % done or hours to go; the estimate follows. A line left empty keeps its earlier forecast,
        or its budget. An estimate is never below cost and open commitments.
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
