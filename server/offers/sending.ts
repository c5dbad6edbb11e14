import { LedrinError } from '../../core/errors/ledrinError';
import type { ClientDocument } from '../../core/offers/clientDocument';
import type { Context } from '../http/context';
import type { Outbox } from '../stand-ins/outbox';

/** How a document goes out. */
export interface Sending {
  outbox: Outbox;
  /** Address of the product, for the link to the client's page. */
  address: string;
  /** Folder that keeps the PDF as it was sent. */
  files: string;
  /** The PDF of the document that goes out. */
  pdfOf: (document: ClientDocument) => Promise<Buffer>;
}

/** Makes the PDF before the transaction is opened; what goes out must still be the document it was made of. */
export async function prepareSending(document: ClientDocument, { workers, outbox, address, files }: Context): Promise<Sending> {
  const pdf = await workers.run('clientDocumentPdf', document);
  const madeOf = JSON.stringify(document);
  return {
    outbox,
    address,
    files,
    pdfOf: async (sent) => {
      if (JSON.stringify(sent) === madeOf) return pdf;
      throw new LedrinError(
        'conflict',
        'This was changed while it was being sent, and was not sent. Look at it again, then send it',
      );
    },
  };
}
