import { afterAll, afterEach, beforeEach, expect, test } from '@jest/globals';
import { Secret, TOTP } from 'otpauth';
import request, { type Response } from 'supertest';
import type { Database } from '../db/database';
import { reading } from '../test/act';
import { cleanUp, faultsOf, SMALL_BOOK, temporaryDatabase } from '../test/books';
import { testApp } from '../test/testApp';
import { CompanyTable } from '../company/models';
import { SessionTable, UserTable } from './models';
import { addDemoUsers } from './demoUsers';
import { whoIs } from './sessions';

const PASSWORD = 'four words in a row';
const OTHER = 'quite another one here';

let database: Database;
let now: Date;
const logged: unknown[] = [];
beforeEach(async () => {
  database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  now = new Date('2031-05-02T09:00:00Z');
});
afterEach(() => expect(logged).toEqual([]));
afterAll(cleanUp);

const appWith = (more = {}) => testApp(database, logged, { whoIs, now: () => now, ...more });
type App = ReturnType<typeof appWith>;

const cookieOf = (reply: Response) => (reply.get('set-cookie') ?? [''])[0]!.split(';')[0]!;
/** A browser: it sends back the cookies it was given last, of its session and of itself. */
function browser(app: App) {
  let [cookie, device] = ['', ''];
  const took = (reply: Response) => {
    if (reply.get('set-cookie')) cookie = cookieOf(reply);
    device = [...(reply.get('set-cookie') ?? [])].find((it) => it.startsWith('ledrin-device=')) ?? device;
    return reply;
  };
  const all = () => [cookie, device.split(';')[0]].filter(Boolean).join('; ');
  return {
    cookie: () => cookie,
    use: (other: string) => void (cookie = other),
    get: async (path: string) => took(await request(app).get(`/api${path}`).set('Cookie', all())),
    send: async (path: string, body: object = {}, method: 'post' | 'put' | 'delete' = 'post') =>
      took(await request(app)[method](`/api${path}`).set('Cookie', all()).send(body)),
  };
}

async function owned(app: App) {
  const owner = browser(app);
  expect((await owner.send('/first-owner', { name: 'Ann Ash', email: 'ann@x.example', password: PASSWORD })).status).toBe(201);
  return owner;
}

/** Invites somebody, who sets a password and so is signed in. */
async function invite(app: App, owner: Awaited<ReturnType<typeof owned>>, name: string, role: string) {
  const { link } = (await owner.send('/users', { name, email: `${name}@x.example`, role, allJobs: false })).body as {
    link: string;
  };
  const person = browser(app);
  const way = `/invitations/${link.split('/').at(-1)}`;
  expect((await person.send(way, { password: PASSWORD })).status).toBe(201);
  return { person, way };
}

test('the first of all becomes the owner, once, on the own machine and with a good password; nobody else is let in', async () => {
  const app = appWith();
  const stranger = browser(app);
  expect((await stranger.get('/session')).body).toMatchObject({ user: null, needsOwner: true, company: null, demo: [] });
  expect((await stranger.get('/jobs?asOf=2031-04')).status).toBe(401);
  const owner = { name: 'Ann Ash', email: 'ann@x.example', password: PASSWORD };
  for (const password of ['short', '123456789012', 'Ann Ash Ann Ash'.slice(0, 7) + '12345', 'abababababab'])
    expect((await stranger.send('/first-owner', { ...owner, password })).body.faults[0].field).toBe('password');
  // Through a web server that is trusted, and through one that nobody said is there.
  for (const trustProxy of [1, false]) {
    const through = request(appWith({ trustProxy })).post('/api/first-owner').set('X-Forwarded-For', '203.0.113.9');
    const { status, body } = await through.send(owner);
    expect([status, body.message]).toEqual([403, expect.stringMatching(/own machine/)]);
  }
  const reply = await stranger.send('/first-owner', owner);
  expect(reply.get('set-cookie')![0]).toMatch(/^ledrin=[\w-]{43}; Max-Age=\d+; Path=\/; Expires=[^;]+; HttpOnly; SameSite=Lax$/);
  expect((await stranger.get('/session')).body).toMatchObject({ user: { name: 'Ann Ash', role: 'owner' }, jobCount: 2 });
  expect((await browser(app).send('/first-owner', { ...owner, name: 'B', email: 'b@x.example' })).status).toBe(403);
  expect((await stranger.send('/sign-in/demo', { role: 'owner' })).status).toBe(403);
});

test('behind TLS the cookie is sent over nothing else', async () => {
  const app = appWith({ address: 'https://books.example' });
  const reply = await request(app).post('/api/first-owner').send({ name: 'Ann Ash', email: 'ann@x.example', password: PASSWORD });
  expect(reply.get('set-cookie')![0]).toMatch(/; Secure/);
  expect(reply.get('strict-transport-security')).toMatch(/max-age=31536000/);
});

test('signing in begins a new session: none that was planted is taken over; signing out ends it, and nothing is kept by browsers', async () => {
  const app = appWith();
  const owner = await owned(app);
  const first = owner.cookie();
  const planted = browser(app);
  planted.use('ledrin=planted');
  expect((await planted.send('/sign-in', { who: 'ANN@x.example', password: PASSWORD })).status).toBe(201);
  expect(planted.cookie()).not.toMatch(/planted/);
  // Signed in again in the same browser: the session before it is over.
  expect((await owner.send('/sign-in', { who: 'ann ash', password: PASSWORD })).status).toBe(201);
  const again = owner.cookie();
  owner.use(first);
  expect((await owner.get('/jobs?asOf=2031-04')).status).toBe(401);
  owner.use(again);
  const read = await owner.get('/jobs?asOf=2031-04');
  expect([read.status, read.get('cache-control')]).toEqual([200, 'no-store']);
  expect((await owner.send('/sign-out')).get('set-cookie')![0]).toMatch(/^ledrin=;/);
  owner.use(again);
  expect((await owner.get('/jobs?asOf=2031-04')).status).toBe(401);
});

test('what lies in the database signs nobody in: no password, no token of a session or a link, not even in what was sent twice', async () => {
  const app = appWith();
  const owner = await owned(app);
  const { way } = await invite(app, owner, 'Bob', 'accountant');
  await request(app)
    .post('/api/sign-in')
    .set('Idempotency-Key', 'once-and-again')
    .send({ who: 'Bob', password: PASSWORD })
    .expect(201);
  const [, token] = owner.cookie().split('=');
  const sql = reading(database);
  const tables = await sql.anyRows(`SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'cost_text%'`);
  for (const { name } of tables) {
    const rows = JSON.stringify(await sql.anyRows(`SELECT * FROM "${String(name)}"`));
    for (const secret of [PASSWORD, token!, way.split('/').at(-1)!]) expect([name, rows.includes(secret)]).toEqual([name, false]);
  }
  expect(await sql.anyRows('SELECT * FROM handled_request')).toEqual([]);
  const [user] = await sql.find(UserTable, { name: 'Bob' });
  expect(user!.password).toMatch(/^scrypt\$131072\$/);
});

test('a link opens once, and not after a week; a new one ends the one before', async () => {
  const app = appWith();
  const owner = await owned(app);
  const { way } = await invite(app, owner, 'Bob', 'accountant');
  const thief = browser(app);
  expect((await thief.get(way)).status).toBe(404);
  expect((await thief.send(way, { password: OTHER })).status).toBe(404);
  const { id } = (await owner.get('/users')).body.find((it: { name: string }) => it.name === 'Bob');
  const links = [
    (await owner.send(`/users/${id}/invitation`)).body.link,
    (await owner.send(`/users/${id}/invitation`)).body.link,
  ] as string[];
  const [old, fresh] = links.map((it) => `/invitations/${it.split('/').at(-1)}`);
  expect((await thief.get(old!)).status).toBe(404);
  expect((await thief.get(fresh!)).body).toEqual({ name: 'Bob', role: 'accountant' });
  now = new Date('2031-05-10T09:00:00Z');
  expect((await thief.get(fresh!)).status).toBe(404);
});

test('a role that changes holds from the next request; who is closed is out at once; the last owner stays', async () => {
  const app = appWith();
  const owner = await owned(app);
  const { person } = await invite(app, owner, 'Bob', 'accountant');
  const of = (name: string, more: object) => ({
    name,
    email: `${name}@x.example`,
    role: 'accountant',
    allJobs: false,
    closed: false,
    ...more,
  });
  const save = async (name: string, more: object) => {
    const { body } = await owner.get('/users');
    const { id, seen } = (body as { name: string; id: number; seen: string }[]).find((it) => it.name === name)!;
    return owner.send(`/users/${id}`, { ...of(name, more), seen }, 'put');
  };
  expect((await person.get('/audit')).status).toBe(200);
  const [{ id, seen }] = (await owner.get('/users')).body.filter((it: { name: string }) => it.name === 'Bob');
  expect((await save('Bob', { role: 'estimator' })).status).toBe(200);
  // A second owner, who opened the page before, does not write over it.
  expect((await owner.send(`/users/${id}`, { ...of('Bob', {}), seen }, 'put')).status).toBe(409);
  expect((await person.get('/audit')).status).toBe(403);
  const last = await save('Ann Ash', { email: 'ann@x.example', role: 'manager' });
  expect([last.status, last.body.faults[0].message]).toEqual([400, expect.stringMatching(/last owner/)]);
  expect((await save('Ann Ash', { email: 'ann@x.example', role: 'owner', closed: true })).status).toBe(400);
  await save('Bob', { closed: true });
  expect((await person.get('/jobs?asOf=2031-04')).status).toBe(401);
  expect((await person.send('/sign-in', { who: 'Bob', password: PASSWORD })).status).toBe(403);
});

test('a changed password ends the other sessions; one session is ended by hand; none lasts', async () => {
  const app = appWith();
  const owner = await owned(app);
  const phone = browser(app);
  await phone.send('/sign-in', { who: 'Ann Ash', password: PASSWORD });
  const tablet = browser(app);
  await tablet.send('/sign-in', { who: 'Ann Ash', password: PASSWORD });
  const sessions = (await owner.get('/account/sessions')).body as { id: number; own: boolean }[];
  expect(sessions.map((it) => it.own)).toEqual([false, false, true]);
  expect((await owner.send(`/account/sessions/${sessions[0]!.id}`, {}, 'delete')).status).toBe(200);
  expect([(await tablet.get('/account/sessions')).status, (await phone.get('/account/sessions')).status]).toEqual([401, 200]);
  expect((await owner.send('/account/password', { old: OTHER, password: OTHER })).status).toBe(403);
  expect((await owner.send('/account/password', { old: PASSWORD, password: OTHER })).status).toBe(201);
  expect([(await phone.get('/account/sessions')).status, (await owner.get('/account/sessions')).status]).toEqual([401, 200]);
  now = new Date('2031-05-02T22:00:00Z');
  expect((await owner.get('/account/sessions')).status).toBe(401);
  await owner.send('/sign-in', { who: 'Ann Ash', password: OTHER });
  expect(await reading(database).find(SessionTable, {})).toHaveLength(1);
});

test('a session that guesses its password is made to wait, whatever other cookies it sends', async () => {
  const app = appWith();
  const session = (await owned(app)).cookie();
  const statuses: number[] = [];
  for (let i = 0; i < 9; i++) {
    const cookies = `${session}; ledrin-device=device${i}; other=${i}`;
    const body = { old: `${OTHER} ${i}`, password: OTHER };
    statuses.push((await request(app).post('/api/account/password').set('Cookie', cookies).send(body)).status);
  }
  expect(statuses).toEqual([403, 403, 403, 403, 403, 403, 403, 403, 429]);
});

test('whoever guesses is made to wait, by name and address as one; whoever signed in from a browser before is not shut out of it', async () => {
  const app = appWith();
  const known = await owned(app);
  await known.send('/sign-out');
  const stranger = browser(app);
  const replies: [number, string][] = [];
  for (let i = 0; i < 9; i++) {
    const { status, body } = await stranger.send('/sign-in', {
      who: i % 2 ? 'ann@x.example' : 'Ann Ash',
      password: `${OTHER} ${i}`,
    });
    replies.push([status, body.message]);
  }
  expect(replies.map(([status]) => status)).toEqual([403, 403, 403, 403, 403, 403, 403, 403, 429]);
  expect(replies[8]![1]).toMatch(/too often. Wait \d+ minutes?/);
  const unknown = await stranger.send('/sign-in', { who: 'nobody', password: OTHER });
  expect([unknown.status, unknown.body.message]).toEqual(replies[0]);
  // Elsewhere somebody guesses; the owner's own browser opens, and the owner sees who was tried and from where.
  expect((await stranger.send('/sign-in', { who: 'Ann Ash', password: PASSWORD })).status).toBe(429);
  expect((await known.send('/sign-in', { who: 'Ann Ash', password: PASSWORD })).status).toBe(201);
  await new Promise((done) => setTimeout(done, 200));
  const failures = (await known.get('/sign-in/failures')).body as { who: string; name: string | null; from: string }[];
  expect(failures.map((it) => [it.who, it.name])).toEqual([
    ['nobody', null],
    ...Array.from({ length: 8 }, (_, i) => [i % 2 ? 'ann ash' : 'ann@x.example', 'Ann Ash']),
  ]);
}, 60_000);

test('the demo signs in by a press, and only where it is served', async () => {
  await addDemoUsers(database);
  const app = appWith({ demo: true });
  const visitor = browser(app);
  const { demo, user } = (await visitor.get('/session')).body as { demo: { role: string }[]; user: unknown };
  expect([demo.map((it) => it.role), user]).toEqual([['owner', 'accountant', 'manager', 'estimator', 'site'], null]);
  for (const { role } of demo) {
    expect((await visitor.send('/sign-in/demo', { role })).status).toBe(201);
    expect((await visitor.get('/session')).body.user.role).toBe(role);
  }
  // They have no password: elsewhere nobody signs in as one of them.
  expect((await visitor.send('/sign-in', { who: 'Nora Quill', password: '' })).status).toBe(403);
  expect((await browser(appWith()).send('/sign-in/demo', { role: 'owner' })).status).toBe(403);
  // Nor is somebody who has a password signed in without it, even there.
  await database.write((sql) => sql.update(UserTable, { role: 'owner' }, { password: 'scrypt$1$a$b' }));
  expect((await visitor.send('/sign-in/demo', { role: 'owner' })).status).toBe(404);
});

test('with a second factor the password alone opens nothing; each code and each recovery code opens once', async () => {
  const app = appWith();
  const owner = await owned(app);
  const { key, image } = (await owner.send('/account/second-factor', { password: PASSWORD })).body as {
    key: string;
    image: string;
  };
  expect(image).toMatch(/^data:image\/png;base64,/);
  const codeAt = (at: Date) => new TOTP({ secret: Secret.fromBase32(key) }).generate({ timestamp: at.getTime() });
  expect((await owner.send('/account/second-factor/confirm', { code: '000000' })).status).toBe(400);
  const { recovery } = (await owner.send('/account/second-factor/confirm', { code: codeAt(now) })).body as { recovery: string[] };
  expect(recovery).toHaveLength(10);
  const other = browser(app);
  const signIn = (code?: string) =>
    other.send('/sign-in', { who: 'Ann Ash', password: PASSWORD, ...(code === undefined ? {} : { code }) });
  const without = await signIn();
  expect([without.status, without.body, other.cookie()]).toEqual([201, { code: true }, '']);
  // The code that turned it on was used; a wrong one opens nothing either.
  expect((await signIn(codeAt(now))).status).toBe(403);
  expect((await signIn('123 456')).status).toBe(403);
  now = new Date(now.getTime() + 30_000);
  expect((await signIn(codeAt(now))).body).toEqual({ code: false });
  expect((await signIn(codeAt(now))).status).toBe(403);
  expect((await signIn(recovery[3]!.toLowerCase())).body).toEqual({ code: false });
  expect((await signIn(recovery[3])).status).toBe(403);
  expect((await owner.send('/account/second-factor/end', { password: OTHER })).status).toBe(403);
  expect((await owner.send('/account/second-factor/end', { password: PASSWORD })).status).toBe(201);
  expect((await signIn()).body).toEqual({ code: false });
});

test('a phone of the site stays signed in for as long as the company says, used or not; the office does not, and both can be ended', async () => {
  const app = appWith();
  const owner = await owned(app);
  const { person: phone } = await invite(app, owner, 'Cy', 'site');
  const status = async (it: typeof phone) => (await it.get('/account/sessions')).status;
  const later = (day: string) => (now = new Date(`${day}T09:00:00Z`));
  later('2031-05-31');
  expect([await status(phone), await status(owner)]).toEqual([200, 401]);
  // Somebody else signs in, and old sessions are forgotten: that of the phone is not among them.
  await owner.send('/sign-in', { who: 'Ann Ash', password: PASSWORD });
  expect(await status(phone)).toBe(200);
  await database.write((sql) => sql.update(CompanyTable, { id: 1 }, { site_days: 29 }));
  later('2031-06-02');
  expect(await status(phone)).toBe(401);
  await owner.send('/sign-in', { who: 'Ann Ash', password: PASSWORD });
  expect(await reading(database).find(SessionTable, {})).toHaveLength(1);
  const reply = await phone.send('/sign-in', { who: 'Cy', password: PASSWORD });
  expect(reply.get('set-cookie')?.[0]).toContain(`Max-Age=${29 * 24 * 3600}`);
  later('2031-06-10');
  expect(await status(phone)).toBe(200);
  // Lost, it is signed out from the office.
  const office = browser(app);
  await office.send('/sign-in', { who: 'Ann Ash', password: PASSWORD });
  const users = (await office.get('/users')).body as { id: number; name: string }[];
  const cy = users.find((it) => it.name === 'Cy')!;
  expect((await office.send(`/users/${cy.id}/sessions`, {}, 'delete')).status).toBe(200);
  expect(await status(phone)).toBe(401);
});
