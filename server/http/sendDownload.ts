import { createReadStream, rmSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import type { Response } from 'express';
import type { Download } from './handlers';

/** Sends a file. Where the client leaves early nothing is left behind, and nobody else notices. */
export async function sendDownload(
  response: Response,
  { type, name, inline = false, headers = {}, content }: Download,
): Promise<void> {
  const plain = name.replace(/[^\w .-]/g, '_');
  const named = plain === name ? `filename="${plain}"` : `filename="${plain}"; filename*=UTF-8''${encodeURIComponent(name)}`;
  response.setHeader('Content-Disposition', `${inline ? 'inline' : 'attachment'}; ${named}`);
  response.setHeader('Cache-Control', 'no-store');
  for (const [header, value] of Object.entries(headers)) response.setHeader(header, value);
  response.type(type);
  if (typeof content === 'string' || Buffer.isBuffer(content)) return void response.send(content);
  try {
    await pipeline(createReadStream(content.path), response);
  } catch (error) {
    if (!response.destroyed && !response.writableAborted) throw error;
  } finally {
    if (content.temporaryFolder) rmSync(content.temporaryFolder, { recursive: true, force: true });
  }
}
