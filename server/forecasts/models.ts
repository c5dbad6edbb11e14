import { t, table } from '../db/fields';

export const ForecastTable = table('forecast', {
  id: t.id,
  cost_line_id: t.ref('cost_line'),
  as_of: t.day,
  method: t.oneOf('to-complete', 'percent', 'hours'),
  value: t.whole,
  note: t.text,
});
