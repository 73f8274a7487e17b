import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { PROBLEM_KINDS } from '../core/problems';
import { connect, type AddressInfo } from 'node:net';
import {
  cleanHeaders,
  isLocalHost,
  isOwnOrigin,
  methodsOfVeridon,
  refusalOf,
  refuse,
  refuseUnreadable,
} from './door.mjs';

const knock = (method: string, url: string, headers: Record<string, string> = {}) => ({
  method,
  url,
  headers: { host: '127.0.0.1:4320', ...headers },
});
const statusOf = (...parts: Parameters<typeof knock>) =>
  refusalOf(knock(...parts), methodsOfVeridon)?.status ?? 'let in';

test.each([
  ['127.0.0.1', true],
  ['127.0.0.1:4320', true],
  ['localhost:4320', true],
  ['127.0.0.1:65535', true],
  ['127.0.0.1:65536', false],
  ['127.0.0.1:99999', false],
  ['127.0.0.1:', false],
  ['127.0.0.1:4320.isles.example', false],
  ['isles.example', false],
  ['127.0.0.1:4320@isles.example', false],
  ['127.0.0.2', false],
  ['[::1]:4320', false],
  ['', false],
])('the name %j leads here: %s', (host, local) => expect(isLocalHost(host)).toBe(local));

test.each([
  [{}, true],
  [{ origin: 'http://127.0.0.1:4320' }, true],
  // another port of this machine is another site
  [{ origin: 'http://127.0.0.1:4321' }, false],
  [{ origin: 'http://localhost:4320' }, false],
  [{ origin: 'https://127.0.0.1:4320' }, false],
  [{ origin: 'null' }, false],
  [{ 'sec-fetch-site': 'same-origin' }, true],
  [{ 'sec-fetch-site': 'none' }, true],
  [{ 'sec-fetch-site': 'same-site' }, false],
  [{ 'sec-fetch-site': 'cross-site' }, false],
])('a request with %j comes from our own pages, or from none: %s', (headers, own) =>
  expect(isOwnOrigin(knock('POST', '/api/plans', headers as Record<string, string>))).toBe(own),
);

test.each([
  ['GET', '/', {}, 'let in'],
  ['GET', '/plans/pl_ketterbyweekend?x=%41', {}, 'let in'],
  ['GET', '/api/plans', { origin: 'http://isles.example' }, 'let in'],
  ['GET', '/api/plans/pl_abcd/paper', { 'sec-fetch-site': 'cross-site' }, 403],
  ['HEAD', '/api/plans', { 'sec-fetch-site': 'same-site' }, 403],
  ['GET', '/api/plans', { 'sec-fetch-site': 'none' }, 'let in'],
  ['GET', '/bench', { 'sec-fetch-site': 'cross-site' }, 'let in'],
  ['POST', '/api/plans', { 'content-length': '4000000' }, 'let in'],
  ['POST', '/api/plans', { origin: 'http://127.0.0.1:4320' }, 'let in'],
  ['GET', '/', { host: 'isles.example' }, 403],
  ['GET', '/icon.svgX', { host: 'isles.example' }, 403],
  ['GET', '/_next/imageX', { host: 'isles.example' }, 403],
  ['GET', '/_next/static/x.js', { host: 'isles.example' }, 403],
  ['POST', '/api/plans', { origin: 'http://127.0.0.1:4321' }, 403],
  ['DELETE', '/api/plans/pl_abcd', { 'sec-fetch-site': 'same-site' }, 403],
  ['GET', '/%', {}, 400],
  ['GET', '/api/plans/%E0%A4%A', {}, 400],
  ['GET', '/plans/%00', {}, 400],
  ['GET', '//isles.example/x', {}, 400],
  ['GET', '/..\\x', {}, 400],
  ['GET', 'http://isles.example/', {}, 400],
  ['OPTIONS', '*', {}, 400],
  ['GET', `/${'x'.repeat(4000)}`, {}, 414],
  ['TRACE', '/', {}, 405],
  ['TRACE', '/api/health', {}, 405],
  ['POST', '/', {}, 405],
  ['PUT', '/plans/pl_abcd', {}, 405],
  ['POST', '/api/plans', { 'content-length': '4000001' }, 413],
  ['POST', '/api/plans', { 'transfer-encoding': 'chunked' }, 411],
] as const)('%s %s with %j: %s', (method, url, headers, status) =>
  expect(statusOf(method, url, headers)).toBe(status),
);

test('a refusal of a method says which ones there are', () =>
  expect(refusalOf(knock('POST', '/bench'), methodsOfVeridon)).toMatchObject({ allow: 'GET, HEAD' }));

test('headers that only the framework may say are taken out where they make no sense', () => {
  const headers: Record<string, string | undefined> = {
    accept: 'text/html',
    rsc: '1',
    'next-url': '/%',
    'next-action': 'x',
    'next-router-state-tree': '%5B%22%22%5D',
    'x-middleware-subrequest': 'proxy',
  };
  cleanHeaders(headers);
  expect(headers).toEqual({ accept: 'text/html', rsc: '1', 'next-router-state-tree': '%5B%22%22%5D' });
  const bad: Record<string, string | undefined> = { 'next-router-state-tree': '%7B%7D' };
  cleanHeaders(bad);
  expect(bad).toEqual({});
});

describe('what is no request that can be read', () => {
  const server = createServer((request, response) => {
    const refusal = refusalOf(
      { method: request.method ?? '', url: request.url ?? '', headers: request.headers },
      methodsOfVeridon,
    );
    if (refusal) refuse(response, refusal);
    else response.end('in');
  }).on('clientError', refuseUnreadable);
  beforeAll(() => new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve)));
  afterAll(() => new Promise((resolve) => server.close(resolve)));

  /** All that comes back for those bytes, until the other end lets go. */
  const say = (bytes: string) =>
    new Promise<string>((resolve) => {
      let heard = '';
      const socket = connect((server.address() as AddressInfo).port, '127.0.0.1', () => socket.write(bytes));
      socket.on('data', (part) => (heard += String(part)));
      socket.on('error', () => {});
      socket.on('close', () => resolve(heard));
    });

  test.each([
    [
      'an address of 20,000 characters',
      `GET /${'x'.repeat(20_000)} HTTP/1.1\r\nHost: localhost\r\n\r\n`,
      431,
    ],
    ['something else', 'Good morning!\r\n\r\n', 400],
    [
      'two lengths',
      'GET / HTTP/1.1\r\nHost: localhost\r\nContent-Length: 1\r\nContent-Length: 2\r\n\r\n',
      400,
    ],
    ['a method that no one has', 'BREW / HTTP/1.1\r\nHost: localhost\r\n\r\n', 400],
    ['another host', 'GET / HTTP/1.1\r\nHost: isles.example\r\n\r\n', 403],
  ])('%s is answered with a problem document', async (_, bytes, status) => {
    const [head, body] = (await say(bytes)).split('\r\n\r\n');
    expect(head).toMatch(new RegExp(`^HTTP/1\\.1 ${status} `));
    expect(head).toContain('Content-Type: application/problem+json');
    expect(JSON.parse(body!)).toMatchObject({ status, detail: expect.stringMatching(/\.$/) });
    expect(Number(/Content-Length: (\d+)/.exec(head!)![1])).toBe(Buffer.byteLength(body!));
  });
});

test('whoever sends far too much hears so, though all of it is sent before the answer is read', async () => {
  const body = Buffer.alloc(1_000_000, 'x');
  const server = createServer((request, response) => {
    const { method = '', url = '', headers } = request;
    refuse(response, refusalOf({ method, url, headers }, methodsOfVeridon)!);
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  for (let n = 0; n < 10; n++) {
    const socket = connect(port, '127.0.0.1');
    const failed = new Promise<Error>((resolve) => socket.once('error', resolve));
    const sent = async () => {
      socket.write(
        `POST /api/plans HTTP/1.1\r\nHost: localhost\r\nContent-Length: ${12 * body.length}\r\n\r\n`,
      );
      for (let part = 0; part < 12; part++)
        await new Promise<void>((resolve, reject) =>
          socket.write(body, (error) => (error ? reject(error) : resolve())),
        );
      let heard = '';
      for await (const part of socket) heard += String(part);
      return heard;
    };
    expect(await Promise.race([sent(), failed.then(String)])).toMatch(/^HTTP\/1\.1 413 /);
  }
  await new Promise((resolve) => server.close(resolve));
});

test('whoever never ends is let go all the same', async () => {
  const server = createServer((_, response) =>
    refuse(response, { status: 413, kind: 'too-large', title: 'Too much', detail: 'Too much.' }),
  );
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.address() as AddressInfo;
  const socket = connect(port, '127.0.0.1', () =>
    socket.write('POST / HTTP/1.1\r\nHost: localhost\r\nContent-Length: 1000\r\n\r\nabc'),
  );
  socket.resume();
  await new Promise((resolve) => socket.once('close', resolve));
  await new Promise((resolve) => server.close(resolve));
});

test('what the door refuses is of the kinds that there are', () => {
  const source = ['door.mjs', 'server.mjs']
    .map((name) => readFileSync(`src/door/${name}`, 'utf8'))
    .join('\n');
  const kinds = [
    ...source.matchAll(/\bkind: '([a-z-]+)'/g),
    ...source.matchAll(/refusal\(\s*\d+,\s*'([a-z-]+)'/g),
  ].map(([, kind]) => kind);
  expect(kinds.length).toBeGreaterThan(5);
  for (const kind of kinds) expect(PROBLEM_KINDS).toContain(kind);
});
