import type { ForecastView } from '../../../wire/forecasts';
import type { LabourTaskRow } from '../../../wire/labour';
import { useForecastQuery, useSaveForecastMutation } from '../../ground/api/api';
import { useAsOf } from '../../ground/asOf';
import { useMay } from '../../ground/person';
import { useAttempt } from '../../ground/useAttempt';

/** How a manager says what of a task is done: it is the forecast of its line. Null where nothing is forecast, or somebody may not. */
export function useSayDone(job: string) {
  const { asOf } = useAsOf();
  const may = useMay();
  const mayForecast = may('forecast');
  const { data } = useForecastQuery({ job, asOf }, { skip: !mayForecast });
  const { refused, attempt } = useAttempt();
  const [save, { isLoading }] = useSaveForecastMutation();
  if (!mayForecast || !data || data.closed !== null) return { say: null, refused: null, busy: false };
  return {
    say: (task: LabourTaskRow, percent: number) =>
      attempt(
        () => save({ job, body: { seen: data.seen, on: data.on, lines: linesWith(data, task, percent) } }).unwrap(),
        `${task.costCode}: done as said, in the forecast of the line`,
      ),
    refused,
    busy: isLoading,
  };
}

/** What is said of the day, with one line said otherwise; its note stays. */
function linesWith({ lines }: ForecastView, task: LabourTaskRow, value: number) {
  return lines.flatMap(({ section, costCode, costType, entered: said }) => {
    const own = costType === 'labour' && section === task.section && costCode === task.costCode;
    if (own) return [{ section, costCode, costType, method: 'percent' as const, value, note: said?.note ?? '' }];
    return said ? [{ section, costCode, costType, ...said }] : [];
  });
}
