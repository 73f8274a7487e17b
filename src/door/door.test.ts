import { cleanHeaders, isLocalHost, isOwnOrigin, methodsOfVeridon, refusalOf } from './door.mjs';

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
