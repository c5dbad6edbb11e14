import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { answerCalls } from '../../wire/quotations';
import { todayOf } from '../http/context';
import { handle } from '../http/handlers';
import { documentDownload } from './documentDownload';
import { acceptOffer, askAboutOffer, declineOffer } from './offers';
import { answerView, offerByToken } from './offerViews';

export const answerHandlers = handle(answerCalls, {
  answer: (sql, { token }, context) => answerView(sql, token, todayOf(context)),
  answerDocument: async (database, { token }, context) => {
    const { document, pdfHash } = await database.read(async (sql) => ({
      ...(await answerView(sql, token, todayOf(context))),
      pdfHash: (await offerByToken(sql, token)).pdfHash,
    }));
    const sent = pdfHash === '' ? null : join(context.files, pdfHash);
    if (!sent || !existsSync(sent)) return documentDownload(document, 'pdf', context);
    const name = `${document.title} ${document.job.number}.pdf`;
    return { type: 'application/pdf', name, inline: true, content: readFileSync(sent) };
  },
  askAboutOffer: (command, { token, body }) => askAboutOffer(command, token, body.name, body.question),
  acceptOffer: (command, { token, body }) => acceptOffer(command, token, body),
  declineOffer: (command, { token, body }) => declineOffer(command, token, body.name, body.reason),
});
