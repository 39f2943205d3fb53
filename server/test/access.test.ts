/** Who gets in with a token, what answers say about themselves, and how much may come in at once. */
import express from 'express';
import { mkdtempSync, mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { request as plainRequest } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createApp } from '../app.ts';
import { cookieName } from '../http/access.ts';
import { boundedInFlight } from '../http/in-flight.ts';
import { ProblemFilter } from '../http/problem.ts';
import { startServer, type Harness } from './harness.ts';

const { accessToken } = (await import(join(import.meta.dirname, '..', '..', 'scripts', 'access.mjs'))) as {
  accessToken(home: string, env: Record<string, string>): string | null;
};

const folder = mkdtempSync(join(tmpdir(), 'tallow-access-'));
mkdirSync(join(folder, 'web'));
const PAGE = '<meta property="csp-nonce" nonce="tallow-nonce"><script nonce="tallow-nonce" src="/m.js"></script>';
writeFileSync(join(folder, 'web', 'index.html'), PAGE);
afterAll(() => {
  rmSync(folder, { recursive: true });
});

let server: Harness;
beforeAll(async () => {
  server = await startServer();
});
afterAll(() => server.stop());

/** Another server on the same database, with the page, and the token of a home. */
async function served(token: string | null) {
  process.env['TALLOW_ACCESS_TOKEN'] = token ?? '';
  const app = await createApp(server.database, join(folder, 'web'));
  delete process.env['TALLOW_ACCESS_TOKEN'];
  await app.listen(0, '127.0.0.1');
  const address = `http://localhost:${(app.getHttpServer().address() as AddressInfo).port}`;
  return { address, stop: () => app.close() };
}

describe('with a token', () => {
  const token = 'tok3n-of-this-home';
  let address: string;
  let stop: () => Promise<void>;
  beforeAll(async () => ({ address, stop } = await served(token)));
  afterAll(() => stop());
  const ask = (path: string, headers: Record<string, string> = {}, method = 'GET') =>
    fetch(`${address}${path}`, { headers, method, redirect: 'manual' });

  test('nobody gets in without it: neither to the page nor to the interface, nor with another', async () => {
    for (const path of [
      '/',
      '/shots/x/draw',
      '/m.js',
      '/api/shots',
      '/api/docs',
      '/?token=wrong',
      '/?token=',
      '/api/healthy',
    ])
      expect([path, (await ask(path)).status]).toEqual([path, 401]);
    for (const cookie of [
      '',
      `${cookieName(server.home)}=wrong`,
      `tallow=${token}`,
      `x${cookieName(server.home)}=${token}`,
    ])
      expect((await ask('/api/shots', { cookie })).status).toBe(401);
    expect((await ask(`/api/shots?token=${token}`, {}, 'POST')).status).toBe(401);
    expect(await (await ask('/')).text()).toContain('printed when it started');
    // Whoever starts it asks whether it is well.
    expect((await ask('/api/health')).status).not.toBe(401);
  });

  test('the printed address gives a cookie that no script reads and no other site sends, and a clean address', async () => {
    const answer = await ask(`/shots/a/draw?token=${token}&b=1`);
    expect([answer.status, answer.headers.get('location')]).toEqual([303, '/shots/a/draw?b=1']);
    const cookie = answer.headers.get('set-cookie')!;
    expect(cookie).toContain(`${cookieName(server.home)}=${token}; `);
    for (const part of ['HttpOnly', 'SameSite=Strict', 'Path=/', 'Max-Age=34560000']) expect(cookie).toContain(part);
    const held = cookie.split(';')[0]!;
    expect((await ask('/shots/a/draw', { cookie: `other=1; ${held}` })).status).toBe(200);
    // A page of another port may have set one of the same name.
    expect((await ask('/', { cookie: `${cookieName(server.home)}=theirs; ${held}` })).status).toBe(200);
    expect((await ask('/api/shots', { cookie: held, origin: 'http://evil.test' })).status).toBe(403);
  });

  test('the clean address is of this server, whatever was asked for', async () => {
    for (const path of ['//evil.test/', '///evil.test/a', '/%2f%2fevil.test'])
      expect((await ask(`${path}?token=${token}`)).headers.get('location')).toMatch(/^\/(?!\/)/);
  });
});

test('without a token everything opens at once, and no cookie is given', async () => {
  const { address, stop } = await served(null);
  const answer = await fetch(`${address}/?token=any`);
  expect([answer.status, answer.headers.get('set-cookie')]).toEqual([200, null]);
  await stop();
});

test('a home keeps its token; homes have cookies of their own; a word that is misspelt is refused', () => {
  expect(accessToken(folder, {})).toBeNull();
  expect(accessToken(folder, { TALLOW_ACCESS: 'open' })).toBeNull();
  const token = accessToken(folder, { TALLOW_ACCESS: 'token' })!;
  expect(token).toMatch(/^[\w-]{43}$/);
  expect(accessToken(folder, { TALLOW_ACCESS: 'token' })).toBe(token);
  expect(readFileSync(join(folder, 'access-token'), 'utf8')).toBe(token);
  expect(statSync(join(folder, 'access-token')).mode & 0o777).toBe(0o600);
  expect(() => accessToken(folder, { TALLOW_ACCESS: 'tokn' })).toThrow('must be token or open');
  expect(cookieName('/a')).not.toBe(cookieName('/b'));
});

test('each answer has a nonce of its own, in its page and in its rules; nothing else may style it', async () => {
  const { address, stop } = await served(null);
  const nonces = new Set<string>();
  for (let i = 0; i < 3; i++) {
    const answer = await fetch(address);
    const rules = answer.headers.get('content-security-policy')!;
    const [, nonce] = /style-src 'self' 'nonce-([^']+)'/.exec(rules)!;
    nonces.add(nonce!);
    expect(await answer.text()).toBe(PAGE.replaceAll('tallow-nonce', nonce!));
    expect(rules).not.toContain('unsafe-inline');
    expect(rules).toContain("form-action 'self'");
    expect(answer.headers.get('cache-control')).toBe('no-store');
  }
  expect(nonces.size).toBe(3);
  expect((await fetch(`${address}/api/health`)).headers.get('cache-control')).toBe('no-store');
  await stop();
});

test('bodies that would fill the memory together are asked to come again; each alone is taken', async () => {
  const app = express();
  const filter = new ProblemFilter();
  app.use(boundedInFlight(1000), (request, response) => {
    request.resume().once('end', () => response.end('taken'));
  });
  app.use((error: unknown, _: express.Request, response: express.Response, _next: express.NextFunction) => {
    filter.catch(error, { switchToHttp: () => ({ getResponse: () => response }) } as never);
  });
  const server = app.listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
  const { port } = server.address() as AddressInfo;
  /** A body of so many bytes; it ends when asked to. */
  const send = (bytes: number) => {
    const going = plainRequest({ port, host: '127.0.0.1', method: 'POST', headers: { 'content-length': bytes } });
    const status = new Promise<number>((done) => going.once('response', (r) => done(r.resume().statusCode!)));
    const begun = new Promise<void>((done) => going.write('x', () => done()));
    return { begun, status, end: () => going.end('x'.repeat(bytes - 1)) };
  };
  const first = send(900);
  await first.begun;
  const arrived = () => new Promise<number>((done) => server.getConnections((_, count) => done(count)));
  while ((await arrived()) < 1) await new Promise(setImmediate);
  let second = send(900);
  second.end();
  expect(await second.status).toBe(503);
  const small = send(90);
  small.end();
  expect(await small.status).toBe(200);
  first.end();
  expect(await first.status).toBe(200);
  // Larger than all together may be, but alone.
  second = send(5000);
  second.end();
  expect(await second.status).toBe(200);
  server.close();
  server.closeAllConnections();
});
