import { createServer, type Server, type Socket } from 'node:net';

/** A message as it was handed over. */
export interface TakenMessage {
  from: string;
  to: string[];
  content: string;
}

/**
 * A mail server for trials: takes what is handed to it and keeps it in memory. Nothing is passed on. `refusing`: addresses it takes no
 * mail for.
 */
export class SmtpStandIn {
  readonly received: TakenMessage[] = [];
  private readonly server: Server;

  constructor(private readonly refusing: readonly string[] = []) {
    this.server = createServer((socket) => this.talk(socket));
  }

  /** Listens on a free port of this machine; gives back its address. */
  async listen(): Promise<string> {
    await new Promise<void>((done) => this.server.listen(0, '127.0.0.1', done));
    const address = this.server.address();
    return `smtp://127.0.0.1:${typeof address === 'object' && address ? address.port : 0}`;
  }

  async close(): Promise<void> {
    await new Promise<void>((done) => this.server.close(() => done()));
  }

  private talk(socket: Socket): void {
    let [text, from, inData] = ['', '', false];
    let to: string[] = [];
    const say = (line: string) => socket.write(`${line}\r\n`);
    const addressIn = (line: string) => /<([^>]*)>/.exec(line)?.[1] ?? '';
    say('220 stand-in');
    socket.on('error', () => socket.destroy());
    socket.on('data', (chunk) => {
      text += chunk.toString('utf8');
      for (let end = text.indexOf(inData ? '\r\n.\r\n' : '\r\n'); end >= 0; end = text.indexOf(inData ? '\r\n.\r\n' : '\r\n')) {
        const line = text.slice(0, end);
        text = text.slice(end + (inData ? 5 : 2));
        if (inData) {
          this.received.push({ from, to, content: line });
          inData = false;
          to = [];
          say('250 taken');
          continue;
        }
        const verb = line.slice(0, 4).toUpperCase();
        if (verb === 'MAIL') from = addressIn(line);
        if (verb === 'RCPT' && this.refusing.includes(addressIn(line))) say('550 no such mailbox');
        else if (verb === 'RCPT') {
          to.push(addressIn(line));
          say('250 ok');
        } else if (verb === 'DATA') {
          inData = true;
          say('354 go on');
        } else if (verb === 'QUIT') {
          say('221 bye');
          socket.end();
        } else say(verb === 'EHLO' ? '250 stand-in' : '250 ok');
      }
    });
  }
}
