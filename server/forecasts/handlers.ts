import { forecastCalls } from '../../wire/forecasts';
import { handle } from '../http/handlers';
import { forecastView, saveForecast } from './forecasts';

export const forecastHandlers = handle(forecastCalls, {
  forecast: (sql, { job, asOf }) => forecastView(sql, job, asOf),
  saveForecast: (command, { job, body }) => saveForecast(command, job, body),
});
