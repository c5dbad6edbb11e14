import { afterAll, expect, test } from '@jest/globals';
import pino from 'pino';
import request from 'supertest';
import { cleanUp, faultsOf, SMALL_BOOK, temporaryDatabase } from '../test/books';
import { testApp } from '../test/testApp';

afterAll(cleanUp);

test('a request leaves one line with what was asked for and what came of it: no token, name, address, cookie or content', async () => {
  const database = await temporaryDatabase();
  expect(await faultsOf(database, SMALL_BOOK)).toEqual([]);
  const lines: string[] = [];
  const app = testApp(database, [], { requests: pino({ level: 'info' }, { write: (line: string) => void lines.push(line) }) });
  const secret = 'Secret-of-Ann';
  await request(app).get(`/api/invitations/${secret}`).set('Cookie', `ledrin=${secret}`).set('User-Agent', secret);
  await request(app).post('/api/sign-in').send({ who: secret, password: secret });
  await request(app).get(`/api/people/${secret}/data.json?x=${secret}`);
  await request(app).get(`/api/${secret}`);
  await request(app).get('/api/session');
  await request(app).get('/api/health');
  const seen = lines.map((line) => JSON.parse(line) as Record<string, unknown>);
  expect(seen.map((it) => [it.method, it.way, it.status])).toEqual([
    ['GET', '/invitations/:token', 404],
    ['POST', '/sign-in', 403],
    ['GET', '/people/:name/data.json', 400],
    ['GET', 'none', 404],
    ['GET', '/session', 200],
  ]);
  expect(seen.every((it) => typeof it.milliseconds === 'number')).toBe(true);
  expect(lines.join('')).not.toMatch(/Secret|127\.0\.0\.1|::1/);
});
