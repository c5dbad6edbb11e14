import type { Workers } from '../workers/workers';
import type { DayDocument } from './dayDocument';

/** A picture that cannot be read must not stop the rest from being printed: it is then printed without pictures. */
export async function printed(workers: Pick<Workers, 'run'>, document: DayDocument): Promise<Buffer> {
  try {
    return await workers.run('dayPdf', document);
  } catch (error) {
    if (Object.keys(document.pictures).length === 0) throw error;
    return workers.run('dayPdf', { ...document, pictures: {} });
  }
}
