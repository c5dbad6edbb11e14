import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { setTimeout as pause } from 'node:timers/promises';
import { at } from '../core/errors/known';
import { ROLES, type Role } from '../core/rights/rights';

/**
 * Mixed load on a book of 100,000 costs: 45 readers of all roles and 5 writers with pauses, exports given up, and a SIGKILL every five minutes.
 * Says what came of it by role; ends with status 1 where a reply was 500 or a refusal, or the books did not tie at a look. Minutes: the
 * first argument, else 10. Seconds a reader pauses at most: the second, else 4; 0 asks without a pause.
 */
const MINUTES = Number(process.argv[2] ?? 10);
const PAUSE = Number(process.argv[3] ?? 4);
const READERS = 45;
const WRITERS = 5;
const COSTS = 100_000;
const KILL_EVERY = 5 * 60_000;
const LOOK_EVERY = 30_000;

const VIEWS = [
  ...['/jobs?asOf=2031-04', '/jobs/2104?asOf=2031-04', '/jobs/2108/estimate-versus-actual?asOf=2031-04', '/billing?asOf=2031-04'],
  ...['/costs?asOf=2031-04', '/costs/totals?asOf=2031-04&job=2105', '/reports/wip?asOf=2031-04', '/reports/ageing?asOf=2031-04'],
  ...['/jobs/2104/billing?asOf=2031-04', '/postings?asOf=2031-04', '/audit', '/uninstalled?asOf=2031-04'],
  ...['/lists?asOf=2031-04', '/site/jobs', '/day-sheets?on=2031-04-07', '/week-sheets?on=2031-04-07', '/waiting'],
];

interface Server {
  process: ChildProcess;
  url: string;
}

const folder = mkdtempSync(join(tmpdir(), 'ledrin-soak-'));
const database = join(folder, 'soak.sqlite');
/** How long replies took, by role and by view. */
const took = new Map<Role, number[]>(ROLES.map((role) => [role, []]));
const seen = {
  replies: 0,
  posted: 0,
  faults: 0,
  refused: 0,
  cut: 0,
  kills: 0,
  givenUp: 0,
  looks: 0,
  untied: 0,
  memory: [] as number[],
};
const byView = new Map<string, number[]>();
let server: Server;
/** Of whoever is signed in, by role. */
const cookies = new Map<Role, string>();

async function start(): Promise<Server> {
  const child = spawn(process.execPath, ['dist/server/main.mjs'], {
    env: { ...process.env, PORT: '0', LEDRIN_DB: database, LEDRIN_DEMO: '1' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  const url = await new Promise<string>((found, fail) => {
    child.stdout?.on('data', (text: Buffer) => {
      const match = /http:\/\/localhost:(\d+)/.exec(String(text));
      if (match) found(`http://localhost:${match[1]}/api`);
    });
    child.once('exit', () => fail(new Error('the server stopped')));
  });
  return { process: child, url };
}

/** One request; a server that was just killed is not there, which is no fault of its own. */
async function ask(role: Role, path: string, body?: unknown): Promise<Response | null> {
  const cookie = cookies.get(role) ?? '';
  const began = performance.now();
  try {
    const init: RequestInit =
      body === undefined
        ? { headers: { cookie } }
        : { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json', cookie } };
    const reply = await fetch(server.url + path, init);
    await reply.clone().arrayBuffer();
    const spent = performance.now() - began;
    took.get(role)?.push(spent);
    const view = path.split('?')[0] ?? path;
    byView.set(view, [...(byView.get(view) ?? []), spent]);
    seen.replies += 1;
    if (reply.status >= 500) {
      seen.faults += 1;
      console.log(`${reply.status} at ${path}: ${(await reply.text()).slice(0, 200)}`);
    } else if (!reply.ok) {
      seen.refused += 1;
      if (seen.refused <= 5) console.log(`${reply.status} at ${path}: ${(await reply.text()).slice(0, 200)}`);
    }
    return reply;
  } catch {
    seen.cut += 1;
    await pause(200);
    return null;
  }
}

let reference = 0;
function batch(lines: number): { lines: unknown[]; asOf: string } {
  const line = () => ({
    dated: '2031-04-20',
    job: ['2104', '2105', '2108', '2110'][reference % 4],
    section: '',
    costCode: '0310',
    costType: 'material',
    party: 'SOAK',
    reference: `S-${reference++}`,
    hours: null,
    amount: 100 + (reference % 900),
    description: '',
    commitment: '',
    uninstalled: false,
  });
  return { lines: Array.from({ length: lines }, line), asOf: '2031-04-30' };
}

async function look(): Promise<void> {
  const reply = await ask('owner', '/reports/tie-out?asOf=2031-12');
  if (!reply?.ok) return;
  const { rows } = (await reply.json()) as { rows: { difference: number }[] };
  seen.looks += 1;
  if (rows.some((row) => row.difference !== 0)) seen.untied += 1;
  const status = readFileSync(`/proc/${server.process.pid}/status`, 'utf8');
  seen.memory.push(Math.round(Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) / 1024));
}

async function giveUpExport(): Promise<void> {
  const control = new AbortController();
  setTimeout(() => control.abort(), 50 + Math.random() * 1500);
  await fetch(`${server.url}/book/export`, { signal: control.signal, headers: { cookie: cookies.get('owner') ?? '' } })
    .then(
      (it) => it.arrayBuffer(),
      () => undefined,
    )
    .catch(() => undefined);
  seen.givenUp += 1;
}

const imported = spawn(process.execPath, ['dist/server/cli.mjs', 'import', 'demo/book', '--db', database], { stdio: 'inherit' });
await new Promise((done) => imported.once('exit', done));
server = await start();
for (const role of ROLES) {
  const reply = await fetch(`${server.url}/sign-in/demo`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ role }),
  });
  cookies.set(role, (reply.headers.get('set-cookie') ?? '').split(';')[0] ?? '');
}
while (reference < COSTS) await ask('accountant', '/costs', batch(5000));
/** What each role may open. */
const views = new Map<Role, string[]>();
for (const role of ROLES) {
  const open = await Promise.all(VIEWS.map(async (path) => ((await ask(role, path))?.ok ? [path] : [])));
  views.set(role, open.flat());
  console.log(`${role}: ${open.flat().length} of ${VIEWS.length} views`);
}
seen.refused = 0;
console.log(`${COSTS.toLocaleString('en')} costs posted; ${MINUTES} minutes of load`);
for (const all of took.values()) all.length = 0;
byView.clear();

const end = performance.now() + MINUTES * 60_000;
const until = async (work: () => Promise<unknown>) => {
  while (performance.now() < end) await work();
};
const kill = async () => {
  await pause(Math.min(KILL_EVERY, Math.max(0, end - performance.now())));
  if (performance.now() >= end - LOOK_EVERY) return;
  server.process.kill('SIGKILL');
  await new Promise((done) => server.process.once('exit', done));
  seen.kills += 1;
  server = await start();
};
await Promise.all([
  ...Array.from({ length: READERS }, (_, i) => {
    const role = at(ROLES, i % ROLES.length);
    const own = views.get(role) ?? [];
    return until(async () => {
      await pause(Math.random() * PAUSE * 1000);
      await ask(role, at(own, Math.floor(Math.random() * own.length)));
    });
  }),
  ...Array.from({ length: WRITERS }, () =>
    until(async () => {
      if ((await ask('accountant', '/costs', batch(1 + Math.floor(Math.random() * 20))))?.status === 201) seen.posted += 1;
      await pause(Math.random() * PAUSE * 1000);
    }),
  ),
  until(async () => {
    await giveUpExport();
    await pause(10_000);
  }),
  until(async () => {
    await look();
    await pause(LOOK_EVERY);
  }),
  until(kill),
]);
await look();
server.process.kill('SIGTERM');
for (const [role, all] of [...took, ...byView]) {
  all.sort((a, b) => a - b);
  const share = (part: number) => Math.round(all[Math.floor(all.length * part)] ?? 0);
  const longest = Math.round(all.at(-1) ?? 0);
  console.log(
    `${role}: ${all.length} replies, p50 ${share(0.5)} ms, p95 ${share(0.95)} ms, p99 ${share(0.99)} ms, longest ${longest} ms`,
  );
}
console.log(
  `${seen.replies} replies; ${seen.posted} batches posted; ${seen.givenUp} exports given up; ` +
    `${seen.kills} kills, ${seen.cut} requests cut by them`,
);
console.log(
  `${seen.faults} replies of 500 and above, ${seen.refused} refusals; ${seen.looks} looks, ${seen.untied} at which the books did not tie; memory, MB: ${seen.memory.join(' ')}`,
);
rmSync(folder, { recursive: true, force: true });
process.exitCode = seen.faults > 0 || seen.refused > 0 || seen.untied > 0 ? 1 : 0;
