import { gzipSync } from 'node:zlib';
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { api, type Operation } from '../../api';
import { bytesOf } from '../../core/image';
import { cardFiles, zipOfCard, type Ident } from '../../core/link';
import { ploverF5 } from '../../core/models/plover-f5';
import { channelDefaults } from '../../core/plan';
import { ternP2 } from '../../core/models/tern-p2';
import { id as channelId, IDENT, placing, renaming } from '../../core/samples.test.kit';
import { changes as changeRows, openDatabase } from '../../db';
import { newMemory, UNITS } from '../../sim/bench/units';
import { listBackups } from '../backup';
import { sealCopy } from '../copies';
import { dataFolder } from '../data-folder.test.kit';
import { boardEnded } from '../heard-board';
import { keepOwn } from '../own-directories';
import { loadEnded } from '../people-load';
import { createPlan, setRemoved } from '../plans';
import { seeRadio } from '../radios';
import { editPlan, stepBack } from '../revisions';
import { keepSet } from '../starter-sets';
import { dispatchRequest } from './dispatch';
import { KEEP_RECEIPTS } from './handlers';

/** Every change of the contract, sent twice with its key: done once, and answered the same. */

dataFolder('done-once', {
  // Nobody is there: directories have nothing to say, and the bench has no ports.
  before: () => (process.env.VERIDON_BENCH_URL = 'http://127.0.0.1:9'),
});

const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const base64 = (bytes: Uint8Array | string) => Buffer.from(bytes).toString('base64');
const table = 'Name,Receive,Lat,Lon\nHill,145.6125,52,-30\nBay,145.7,52.1,-30\nBad,x,,\n';
const memory = (unit: string) => newMemory(UNITS.find(({ id }) => id === unit)!);

/** A plan at revision 3, with two channels. */
const plan = async () => {
  const made = await createPlan({ name: 'Twice', modelId: 'tern-p2', owner });
  await editPlan(made.plan.id, 1, placing(0, 1));
  await editPlan(made.plan.id, 2, renaming(0, 'Second'));
  return made.plan.id;
};
const net = { ...channelDefaults(145_600_000), name: 'Our net' };
const radio = () => seeRadio(IDENT, ternP2);
const copy = async () => sealCopy(await radio(), ternP2, memory(UNITS[0]!.id), 'read');
const card = () => {
  const ident: Ident = {
    ...{ model: 'PLOVERF5', serial: 'OR520144', firmware: '1.12', region: 3, imageBytes: bytesOf(ploverF5) },
    ...{ halfWritten: false, battery: null, module: 0 },
  };
  return zipOfCard(cardFiles(memory('plover-1'), ident, ploverF5, 'RADIO'));
};

type Name = keyof typeof api;
interface Request {
  path: string;
  body?: unknown;
  /** The status that is expected, where it is refused because nothing is plugged in here. */
  refused?: number;
}
const at = (name: Name, id: string | number, rest = '') => api[name].path.replace('{id}', String(id)) + rest;

/** A request of each change, and what must be there before. */
const REQUESTS: { [name in Name]?: () => Promise<Request> | Request } = {
  createPlan: () => ({ path: api.createPlan.path, body: { name: 'Twice', modelId: 'tern-p2' } }),
  removePlan: async () => ({ path: at('removePlan', await plan()) }),
  recoverPlan: async () => {
    const gone = await plan();
    await setRemoved(gone, true);
    return { path: at('recoverPlan', gone) };
  },
  duplicatePlan: async () => ({ path: at('duplicatePlan', await plan(), '?revision=2') }),
  movePlan: async () => ({
    path: at('movePlan', await plan()),
    body: { modelId: 'tern-p3', name: 'Moved', sides: {} },
  }),
  openImage: () => ({
    path: api.openImage.path,
    body: { files: [{ name: 'van.bin', base64: base64(memory('gannet-1')) }], rescue: false },
  }),
  mark: async () => ({ path: at('mark', await plan()), body: { revision: 2, name: 'before' } }),
  leaveNews: async () => ({
    path: at('leaveNews', await plan()),
    body: { leave: [{ source: 'isles-ledger', ref: 'x', updated: '2026-11-20' }] },
  }),
  hear: async () => ({
    path: at('hear', await plan()),
    body: { put: [{ channel: channelId(0), at: '2026-11-20T10:00:00.000Z' }] },
  }),
  edit: async () => ({ path: at('edit', await plan()), body: { base: 2, edit: renaming(1, 'Third') } }),
  undo: async () => ({ path: at('undo', await plan()) }),
  redo: async () => {
    const id = await plan();
    await stepBack(id, 'undo');
    return { path: at('redo', id) };
  },
  goBack: async () => ({ path: at('goBack', await plan()), body: { base: 3, revision: 1 } }),
  importFile: async () => ({
    path: api.importFile.path,
    body: { base64: base64(table), plan: await plan(), slots: 'next free' },
  }),
  keepOwn: () => ({ path: api.keepOwn.path, body: { name: 'friends', base64: base64(table) } }),
  dropOwn: async () => {
    const { id } = await keepOwn({ name: 'gone', base64: base64(table) });
    return { path: at('dropOwn', id) };
  },
  setAccount: () => ({ path: at('setAccount', 'isles-ledger'), body: { name: null, password: null } }),
  keepSet: () => ({ path: api.keepSet.path, body: { name: 'Our net', channels: [net] } }),
  dropSet: async () => ({ path: at('dropSet', (await keepSet('Gone', [net])).id) }),
  choosePort: () => ({ path: api.choosePort.path, body: { port: 'x', modelId: 'tern-p2' }, refused: 409 }),
  openCard: () => ({ path: api.openCard.path, body: { base64: base64(card()) } }),
  setUnitValues: async () => ({ path: at('setUnitValues', await radio()), body: { own: {} } }),
  copyNote: async () => ({ path: at('copyNote', await copy()), body: { note: 'kept well' } }),
  copyPlan: async () => ({ path: at('copyPlan', await copy()) }),
  makeBackup: () => ({ path: api.makeBackup.path, body: {} }),
  loadRoll: () => ({ path: api.loadRoll.path }),
  loadFile: () => ({
    path: api.loadFile.path,
    body: { name: 'club.csv', gzip: base64(gzipSync('id,call\n1299990,Q7CLB\n')) },
  }),
  stopRoll: () => ({ path: api.stopRoll.path }),
  loadBoard: () => ({ path: api.loadBoard.path }),
  stopBoard: () => ({ path: api.stopBoard.path }),
  markPerson: () => ({ path: at('markPerson', 1_299_990), body: { pinned: true, note: 'a friend' } }),
  // With radios that are there they are sent twice in jobs.test.ts, several.test.ts and live.test.ts.
  startJob: async () => ({
    path: api.startJob.path,
    body: { kind: 'read', port: 'cable-1' },
    refused: 400,
  }),
  startLive: async () => ({ path: api.startLive.path, body: {}, refused: 400 }),
  endLive: async () => ({ path: at('endLive', await radio()), refused: 404 }),
  decideLive: async () => ({ path: at('decideLive', await radio()), body: {}, refused: 400 }),
  startSeveral: () => ({ path: api.startSeveral.path, body: {}, refused: 400 }),
  stopJob: () => ({ path: at('stopJob', 'jb_none'), refused: 404 }),
};

/** A fingerprint of every table except keys of changes, instances and summaries; when a radio was last seen does not count. */
async function everything(): Promise<Record<string, string>> {
  const { database } = await openDatabase();
  const rows = async (query: string) =>
    ((await database.execute(sql.raw(query))) as unknown as { rows: Record<string, string>[] }).rows;
  const names = await rows(
    `select table_name as t from information_schema.tables where table_schema = 'public' and table_name not in ('changes', 'instances', 'summaries')`,
  );
  const sums: Record<string, string> = {};
  for (const { t } of names) {
    const [sum] = await rows(
      `select count(*) || ' ' || coalesce(md5(string_agg(md5((to_jsonb(x) - 'last_seen')::text), '' order by md5((to_jsonb(x) - 'last_seen')::text))), '') as sum from ${t} x`,
    );
    sums[t!] = sum!.sum!;
  }
  return sums;
}

const settled = () => Promise.all([loadEnded(), boardEnded()]);

const changes = Object.entries(api).filter(([, operation]) => (operation as Operation).changes) as [
  Name,
  Operation,
][];

test('there is a request of every change, and of nothing else', () =>
  expect(Object.keys(REQUESTS).sort()).toEqual(changes.map(([name]) => name).sort()));

test.each(changes)('%s', async (name, { method, status }) => {
  const { path, body, refused } = await REQUESTS[name]!();
  const send = async (key: string) => {
    const request = new Request(`http://127.0.0.1${path}`, {
      method,
      headers: { 'Idempotency-Key': key },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
    const response = await dispatchRequest(request);
    return { status: response.status, answer: (await response.json()) as unknown };
  };
  const key = `twice.${name}`;
  const before = await everything();
  const first = await send(key);
  expect({ name, ...first }).toMatchObject({ name, status: refused ?? status });
  await settled();
  const done = await everything();
  const second = await send(key);
  await settled();
  expect(second).toEqual(first);
  expect(await everything()).toEqual(done);
  if (refused !== undefined) expect(done).toEqual(before);
});

const saved = () => openDatabase().then(({ database }) => database.select().from(changeRows));

/** A load ends with its process, before its answer is saved or not: sent again it begins again. */
const LOADS = ['loadRoll', 'loadFile', 'loadBoard'];

test.each(changes.filter(([name]) => !KEEP_RECEIPTS.has(name) && !LOADS.includes(name)))(
  '%s, sent again after a kill before its answer was saved, does nothing more',
  async (name, { method }) => {
    const { path, body } = await REQUESTS[name]!();
    const send = async () => {
      const response = await dispatchRequest(
        new Request(`http://127.0.0.1${path}`, {
          method,
          headers: { 'Idempotency-Key': `killed.${name}` },
          ...(body !== undefined && { body: JSON.stringify(body) }),
        }),
      );
      await settled();
      return { status: response.status, answer: (await response.json()) as unknown };
    };
    const first = await send();
    const done = [await everything(), await listBackups()];
    const { database } = await openDatabase();
    await database.delete(changeRows).where(eq(changeRows.key, `killed.${name}`));
    expect({ name, ...(await send()) }).toEqual({ name, ...first });
    expect([await everything(), await listBackups()]).toEqual(done);
  },
);

test('no digest of a secret is saved', async () => {
  const bodies = { makeBackup: { passphrase: '' }, setAccount: { name: 'keeper', password: '' } } as const;
  const declared = changes.filter(([, { secrets }]) => secrets.length > 0).map(([name]) => name);
  expect(declared.sort()).toEqual(Object.keys(bodies).sort());
  const sent = async (name: keyof typeof bodies, n: number) => {
    const { path } = await REQUESTS[name]!();
    const [secret] = (api[name] as Operation).secrets;
    await dispatchRequest(
      new Request(`http://127.0.0.1${path}`, {
        method: 'POST',
        headers: { 'Idempotency-Key': `secret.${name}${n}` },
        body: JSON.stringify({ ...bodies[name], [secret!]: `harbour lights ${n}` }),
      }),
    );
    return (await saved()).find(({ key }) => key === `secret.${name}${n}`)?.request;
  };
  // With another passphrase the digest is the same: it was not made of it.
  const [one, other] = [await sent('makeBackup', 1), await sent('makeBackup', 2)];
  expect(one).toMatch(/^[0-9a-f]{64}$/);
  expect(other).toBe(one);
});

test('every member of a body that is called like a secret is declared as one', () => {
  const found = changes.flatMap(([name, { body, secrets }]) => {
    const { properties = {} } = z.toJSONSchema(body, { unrepresentable: 'any', io: 'input' });
    return Object.keys(properties)
      .filter((member) => /pass|secret|token|licen[cs]e/i.test(member))
      .map((member) => ({ name, member, declared: secrets.includes(member) }));
  });
  expect(found.length).toBeGreaterThanOrEqual(2);
  expect(found.filter(({ declared }) => !declared)).toEqual([]);
});

test('two at the same moment are one', async () => {
  const body = { name: 'At once', channels: [net] };
  const send = () =>
    dispatchRequest(
      new Request(`http://127.0.0.1${api.keepSet.path}`, {
        method: 'POST',
        headers: { 'Idempotency-Key': 'twice.at-once' },
        body: JSON.stringify(body),
      }),
    ).then((response) => response.text());
  const [one, ...others] = await Promise.all([send(), send(), send()]);
  for (const other of others) expect(other).toBe(one);
  const other = await dispatchRequest(
    new Request(`http://127.0.0.1${api.keepSet.path}`, {
      method: 'POST',
      headers: { 'Idempotency-Key': 'twice.at-once' },
      body: JSON.stringify({ ...body, name: 'Another' }),
    }),
  );
  expect([other.status, await other.text()]).toEqual([422, expect.stringContaining('key-used')]);
});
