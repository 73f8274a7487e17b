import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import { gzipSync } from 'node:zlib';
import { api, type Operation } from '../src/api';
import { readRow } from '../src/core/directory';
import type { Plan } from '../src/core/plan';
import { largePlan } from '../demo/large-plan';
import { fullOsprey } from '../scripts/full-osprey';
import { generateRegister } from '../src/sim/register/generate';
import { PLAN, type World } from '../e2e/world';
import { ask, limits, post, Watch, type Answer, type Report } from './figures';

/** Every operation of the contract on the largest that it takes, while a thread looks how long anybody else waits meanwhile. */

/** What the operations are tried on. */
interface Things {
  /** A plan that fills an Osprey D7, and one of 3,600 channels that do not fit their radio. */
  full: string;
  bad: string;
  copy: string;
  radio: string;
  backup: string;
  job: string;
}

interface Try {
  query?: string;
  params?: Record<string, string>;
  body?: unknown;
}
type Name = keyof typeof api;

/** Why some are not tried here. */
const LEFT_OUT: { [name in Name]?: string } = {
  events: 'goes on; its beginning is nothing',
  liveEvents: 'goes on; its beginning is nothing',
  startLive: 'follows a line, which the attack “following” spoils',
  endLive: 'follows a line',
  decideLive: 'follows a line',
  startSeveral: 'is several of startJob',
  several: 'there is none here',
  stopJob: 'the job has ended',
  choosePort: 'no port is in doubt here',
  imageFiles: 'there is no image behind these plans; image-files of others are small',
  image: 'there is no image behind these plans',
  imageBytes: 'there is no image behind these plans',
  offersFrom: 'no plan was made of them',
  card: 'its radio has a cable',
  openCard: 'the attack “files” sends cards',
  removePlan: 'a row',
  recoverPlan: 'a row',
};

const base64 = (bytes: Uint8Array | string) => Buffer.from(bytes).toString('base64');
const many = (count: number, row: (n: number) => string) =>
  Array.from({ length: count }, (_, n) => row(n)).join('\n');

/** A table of about as many bytes as a request takes. */
const table = () =>
  `Name,Receive,Offset,Tone,Lat,Lon,Note\n${many(45_000, (n) => `Repeater ${n},${(145 + (n % 100) / 80).toFixed(4)},-0.6,88.5,52.${n % 900},-29.8,hill ${n}`)}`;
const people = () =>
  `id,call,first,last,town,area\n${many(380_000, (n) => `${1_000_000 + n},Q7${n},First,Last ${n % 977},Ketterby,Orrin`)}`;

const TRIES = (things: Things, plans: { full: Plan; bad: Plan }): { [name in Name]?: Try[] } => {
  const { full, bad } = things;
  const both = (query = '') => [full, bad].map((id) => ({ params: { id }, query }));
  const rename = (plan: Plan, edit: object, base: number): Try => ({
    params: { id: plan === plans.full ? full : bad },
    body: { base, edit },
  });
  const all = plans.bad.channels;
  return {
    openapi: [{}],
    health: [{}],
    models: [{}],
    plans: [{ query: '?count=200' }],
    planNames: [{}],
    plan: both(),
    offers: both(),
    document: both(),
    then: both('?revision=1'),
    marks: both(),
    heard: both(),
    news: both('?ask=no'),
    edits: both('?limit=500'),
    fit: both(),
    check: [
      ...both('?count=1000'),
      ...both('?count=1000&mends=true'),
      ...both('?from=3000&count=1000&mends=true'),
    ],
    neighbours: both(),
    export: ['csv', 'xlsx', 'json', 'geojson', 'gpx', 'kml'].flatMap((as) => both(`?as=${as}`)),
    exportSome: [{ params: { id: bad }, body: { as: 'xlsx', ids: all.slice(0, 3000).map(({ id }) => id) } }],
    paper: both('?as=table'),
    planFormat: [{}],
    directories: [{}],
    stations: [{ query: '?lat=52&lon=-30&radius=1000&most=5000&ask=yes' }],
    exportStations: [{ body: { stations: many5000(), as: 'xlsx', name: 'All' } }],
    sets: [{ query: '?region=orrin' }],
    places: [{ query: '?q=Ketterby' }],
    entries: [{ query: '?lat=52&lon=-30&radius=500' }],
    modelSettings: [{ params: { id: 'osprey-d7' } }],
    radios: [{}],
    copies: [{ params: { id: things.radio } }],
    writePreview: [full, bad, PLAN].map((plan) => ({ params: { id: things.radio }, query: `?plan=${plan}` })),
    byHand: [{ params: { id: things.radio }, query: `?plan=${PLAN}` }],
    unitValues: [{ params: { id: things.radio } }],
    setUnitValues: [{ params: { id: things.radio }, body: { own: {} } }],
    copyImage: [{ params: { id: things.copy } }],
    copyCompare: [full, bad].map((plan) => ({ params: { id: things.copy }, query: `?plan=${plan}` })),
    copyNote: [{ params: { id: things.copy }, body: { note: 'x'.repeat(200) } }],
    copyPlan: [{ params: { id: things.copy } }],
    jobs: [{}],
    job: [{ params: { id: things.job } }],
    startJob: [{ body: { kind: 'read', radioId: things.radio } }],
    lives: [{}],
    keeping: [{}],
    makeBackup: [{ body: {} }, { body: { passphrase: 'of a good length' } }],
    backup: [{ params: { name: things.backup } }],
    createPlan: [{ body: { name: 'Another', modelId: 'tern-p2' } }],
    duplicatePlan: both(),
    movePlan: [
      { params: { id: full }, body: { modelId: 'tern-p3', name: 'Moved', sides: {} } },
      { params: { id: bad }, body: { modelId: 'gannet-m8', name: 'Moved', sides: {} } },
    ],
    openImage: [
      { body: { files: [{ name: 'x.bin', base64: base64(new Uint8Array(280_000)) }], rescue: true } },
    ],
    importFile: [
      { body: { base64: base64(JSON.stringify(plans.full)), slots: 'as in the file', name: 'Again' } },
      { body: { base64: base64(table().slice(0, 2_900_000)), plan: full, slots: 'next free' } },
      { body: { base64: base64(table().slice(0, 2_900_000)), modelId: 'tern-p2', slots: 'next free' } },
    ],
    keepOwn: [{ body: { name: 'large', base64: base64(table().slice(0, 2_900_000)) } }],
    dropOwn: [{ params: { id: 'own-none' } }],
    setAccount: [{ params: { id: 'isles-ledger' }, body: { name: null, password: null } }],
    keepSet: [{ body: { name: 'Large', channels: all.slice(0, 2000).map(fieldsOf) } }],
    dropSet: [{ params: { id: 'own-none' } }],
    edit: [
      rename(
        plans.bad,
        { name: 'change', changes: all.map(({ id }, n) => ({ id, set: { name: `Name ${n}` } })) },
        1,
      ),
      rename(plans.bad, { name: 'remove', ids: all.slice(0, 1800).map(({ id }) => id) }, 2),
      rename(
        plans.full,
        {
          name: 'change',
          changes: plans.full.channels.map(({ id }, n) => ({ id, set: { note: `Note ${n}` } })),
        },
        1,
      ),
    ],
    undo: both(),
    redo: both(),
    goBack: [{ params: { id: bad }, body: { base: 6, revision: 1 } }],
    mark: [{ params: { id: bad }, body: { revision: 1, name: 'first' } }],
    leaveNews: [
      {
        params: { id: bad },
        body: {
          leave: Array.from({ length: 5000 }, (_, n) => ({ source: 'x', ref: `R${n}`, updated: '2026' })),
        },
      },
    ],
    hear: [
      {
        params: { id: bad },
        body: { put: all.slice(0, 1000).map(({ id }) => ({ channel: id, at: '2026-11-20T10:00:00.000Z' })) },
      },
    ],
    roll: [{}],
    people: [{ query: '?from=0&count=200' }],
    findPeople: [{ query: '?q=last%2012&most=50' }],
    loadFile: [{ body: { name: 'large.csv', gzip: gzipSync(people()).toString('base64') } }],
    stopRoll: [{}],
    loadRoll: [{}],
    board: [{}],
    loadBoard: [{}],
    stopBoard: [{}],
    rankedPeople: [{ query: '?most=1000' }],
    markedPeople: [{}],
    markPerson: [{ params: { id: '1000001' }, body: { pinned: true, note: '' } }],
  };
};
const many5000 = () => Array.from({ length: 5000 }, (_, n) => ({ source: 'relay-register', ref: `R${n}` }));
const fieldsOf = ({ id: _, slot: _slot, list: _list, ...fields }: Plan['channels'][number]) => fields;

const TOO_LONG = new Set<Name>(['paper']);

export async function tryTheLargest(world: World): Promise<Report> {
  const watch = new Watch();
  const probe = new Worker(resolve('attack/probe.mjs'), { workerData: { url: world.url, pid: world.pid() } });
  const stood = async <T>(run: () => Promise<T>): Promise<[T, number]> => {
    probe.postMessage('begin');
    const value = await run();
    // What follows the answer counts too.
    await new Promise((goOn) => setTimeout(goOn, 60));
    const worst = await new Promise<number>((heard) => {
      probe.once('message', heard);
      probe.postMessage('worst');
    });
    return [value, worst];
  };
  const put = async (plan: Plan) => {
    const body = { base64: base64(JSON.stringify(plan)), slots: 'as in the file' };
    const answer = await ask(`${world.url}/api/import`, post(body), limits.fileMs);
    return (answer.body as { plan: string }).plan;
  };
  const entries = generateRegister().flatMap((row) => {
    const read = readRow(row);
    return read.ok ? [read.value] : [];
  });
  const plans = { full: fullOsprey('pl_fullosprey'), bad: largePlan(entries, { bad: true }) };
  await world.atBench('/bench/radios/tern-1', { plugged: true, on: true });
  const radio = await world.radioId('LK204417');
  const started = await ask(`${world.url}/api/jobs`, post({ kind: 'read', radioId: radio }));
  const job = (started.body as { id: string }).id;
  for (;;) {
    const { state } = (await ask(`${world.url}/api/jobs/${job}`)).body as { state: string };
    if (state !== 'running') break;
    await new Promise((goOn) => setTimeout(goOn, 100));
  }
  const { copies } = (await ask(`${world.url}/api/radios/${radio}/copies`)).body as {
    copies: { id: string }[];
  };
  const kept = await ask(`${world.url}/api/backups`, post({}), limits.fileMs);
  const things: Things = {
    ...{ full: await put(plans.full), bad: await put(plans.bad), radio, job, copy: copies[0]!.id },
    backup: (kept.body as { name: string }).name,
  };
  const tries = TRIES(things, plans);
  const standing: { what: string; ms: number }[] = [];
  let taken = 0;
  for (const [key, operation] of Object.entries(api) as [Name, Operation][]) {
    if (LEFT_OUT[key]) continue;
    const some = tries[key];
    if (!some) {
      watch.note(`${key} is tried on nothing`);
      continue;
    }
    for (const [n, { params = {}, query = '', body }] of some.entries()) {
      const path = operation.path.replace(/\{(\w+)\}/g, (_, name: string) => params[name] ?? '-') + query;
      const init = { ...(body === undefined ? {} : post(body)), method: operation.method };
      const [answer, ms] = await stood<Answer>(() => ask(world.url + path, init, limits.fileMs));
      if (answer.status < 300) taken++;
      standing.push({ what: `${key} ${n + 1} (${answer.status})`, ms });
      watch.take(`${operation.method} ${path.slice(0, 100)}`, answer, limits.fileMs);
      if (ms > limits.standMs && !TOO_LONG.has(key))
        watch.note(
          `${key} ${n + 1}, answered with ${answer.status}, kept others waiting for ${Math.round(ms)} ms`,
        );
    }
  }
  await probe.terminate();
  const worst = standing.sort((a, b) => b.ms - a.ms);
  const over = worst.filter(({ ms }) => ms > limits.standMs);
  return {
    attack: 'the largest of everything',
    figures: {
      ...watch.figures(),
      'operations tried': new Set(standing.map(({ what }) => what.split(' ')[0])).size,
      done: taken,
      [`kept others waiting for over ${limits.standMs} ms`]: over.length,
      'the longest': worst
        .slice(0, 12)
        .map(({ what, ms }) => `${what} ${Math.round(ms)} ms`)
        .join('; '),
    },
    broken: watch.broken,
  };
}
