import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import MailComposer from 'nodemailer/lib/mail-composer';

/** A message as it is to go out. */
export interface OutgoingMessage {
  from: string;
  to: string;
  subject: string;
  text: string;
  date: Date;
  attachments: { filename: string; contentType: string; content: Buffer }[];
}

/**
 * The stand-in for mail that ships with the product: each message becomes an RFC 5322 file in one folder, as a mail
 * program would take it. Nothing leaves the machine.
 */
export class Outbox {
  constructor(readonly folder: string) {}

  /** Writes the message; gives back the name of its file. */
  async put(message: OutgoingMessage): Promise<string> {
    const eml = await new MailComposer({ ...message, newline: 'windows', disableUrlAccess: true, disableFileAccess: true })
      .compile()
      .build();
    mkdirSync(this.folder, { recursive: true });
    const stamp = message.date
      .toISOString()
      .replace(/[^0-9]/g, '')
      .slice(0, 17);
    for (let count = 1; ; count++) {
      const file = `${stamp}-${count}.eml`;
      try {
        writeFileSync(join(this.folder, file), eml, { flag: 'wx' });
        return file;
      } catch (error) {
        if ((error as NodeJS.ErrnoException).code === 'EEXIST' && count <= 1000) continue;
        // Where the disk is full, no half of a message is left.
        if ((error as NodeJS.ErrnoException).code !== 'EEXIST') rmSync(join(this.folder, file), { force: true });
        throw error;
      }
    }
  }

  /** The file of a message as it was written; null where somebody took it away. */
  read(file: string): Buffer | null {
    try {
      return readFileSync(join(this.folder, basename(file)));
    } catch {
      return null;
    }
  }
}
