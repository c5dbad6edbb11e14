import { LedrinError } from '../../core/errors/ledrinError';
import type { ClientDocument } from '../../core/offers/clientDocument';
import type { Context } from '../http/context';
import type { Download } from '../http/handlers';

const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

/** A client's document to be read, or for last edits in a word processor. */
export async function documentDownload(document: ClientDocument, format: string, { workers }: Context): Promise<Download> {
  const name = `${document.title} ${document.job.number}.${format}`;
  if (format === 'pdf')
    return { type: 'application/pdf', name, inline: true, content: await workers.run('clientDocumentPdf', document) };
  if (format === 'docx') return { type: DOCX, name, content: await workers.run('clientDocumentDocx', document) };
  throw new LedrinError('not-found', 'The document comes as pdf or docx');
}
