import { estimateCalls } from '../../wire/estimates';
import { handle } from '../http/handlers';
import { awardJob } from './award';
import { chooseEstimate, deleteEstimate, saveEstimate, sendEstimate, startEstimate } from './estimates';
import { estimatePatternList, removeEstimatePattern, saveEstimatePattern } from './estimatePatterns';
import { estimateList, estimateView } from './estimateViews';
import { previewReprice, repriceEstimate } from './repriceEstimate';

export const estimateHandlers = handle(estimateCalls, {
  estimateList: (sql, { job }) => estimateList(sql, job),
  estimate: (sql, { job, estimate }) => estimateView(sql, job, estimate),
  startEstimate: async (command, { job, body }) => ({ number: await startEstimate(command, job, body) }),
  estimatePatterns: (sql) => estimatePatternList(sql),
  saveEstimatePattern: (command, { body }) => saveEstimatePattern(command, body),
  removeEstimatePattern: (command, { name }) => removeEstimatePattern(command, name),
  saveEstimate: async (command, { job, estimate, body }) => ({ version: await saveEstimate(command, job, estimate, body) }),
  deleteEstimate: (command, { job, estimate }) => deleteEstimate(command, job, estimate),
  chooseEstimate: (command, { job, estimate }) => chooseEstimate(command, job, estimate),
  sendEstimate: (command, { job, estimate, body }) => sendEstimate(command, job, estimate, body.on, body.reference),
  repricing: (sql, { job, estimate }) => previewReprice(sql, job, estimate),
  repriceEstimate: async (command, { job, estimate, body }) => ({
    version: await repriceEstimate(command, job, estimate, body.seen),
  }),
  awardJob: (command, { job, estimate, body }) => awardJob(command, job, estimate, body),
});
