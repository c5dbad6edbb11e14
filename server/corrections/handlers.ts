import { correctionCalls } from '../../wire/corrections';
import { actorOf } from '../http/context';
import { handle } from '../http/handlers';
import { correctCosts } from './correctCosts';
import { install, undoInstallation, uninstalledView } from './installations';
import { reversePosting } from './reversePosting';
import { previewCorrection } from './previewCorrection';

export const correctionHandlers = handle(correctionCalls, {
  previewCorrection: (database, { body }, context) => previewCorrection(database, actorOf(context), body),
  correctCosts: (command, { body }) => correctCosts(command, body),
  reversePosting: (command, { posting, body }) => reversePosting(command, posting, body),
  uninstalled: (sql, { asOf, job }) => uninstalledView(sql, asOf, job ?? null),
  install: (command, { body }) => install(command, body),
  undoInstallation: (command, { id }) => undoInstallation(command, id),
});
