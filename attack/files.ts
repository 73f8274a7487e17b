import { gzipSync } from 'node:zlib';
import type { Plan } from '../src/core/plan';
import { seeded } from '../src/sim/random';
import { PLAN, type World } from '../e2e/world';
import { ask, limits, post, quantile, Watch, type Report } from './figures';
import { byHand, madeUp, type HostileFile } from './hostile';

/** Hostile files on every way in, from clients that send one after the other, while a person types and another opens an ordinary file. */

/** An ordinary table of about a megabyte. */
const ordinary = () =>
  Buffer.from(
    `Name,Receive,Offset,Tone,Lat,Lon,Note\n${Array.from(
      { length: 12_000 },
      (_, n) =>
        `Repeater ${n},${(145 + (n % 100) / 80).toFixed(4)},-0.6,88.5,52.${n % 900},-29.8,on the hill above the harbour ${n} keyed by 88.5`,
    ).join('\n')}`,
  );

/** The ways in: each takes a file, or what is made of it. */
const WAYS: ((file: HostileFile, key: Record<string, string>) => [string, RequestInit])[] = [
  ({ bytes }, key) => ['/api/import', post({ base64: base64(bytes), plan: PLAN, slots: 'next free' }, key)],
  ({ bytes }, key) => [
    '/api/import',
    post({ base64: base64(bytes), modelId: 'tern-p2', slots: 'next free' }, key),
  ],
  ({ bytes }, key) => ['/api/directories/own', post({ name: 'hostile', base64: base64(bytes) }, key)],
  ({ bytes }, key) => [
    '/api/people/file',
    post({ name: 'hostile', gzip: gzipSync(bytes).toString('base64') }, key),
  ],
  ({ bytes }, key) => [
    '/api/images',
    post({ files: [{ name: 'x.bin', base64: base64(bytes.subarray(0, 280_000)) }], rescue: true }, key),
  ],
  ({ bytes }, key) => ['/api/cards', post({ base64: base64(bytes.subarray(0, 280_000)) }, key)],
];
const base64 = (bytes: Uint8Array) => Buffer.from(bytes).toString('base64');

/** What a refusal may not have: what only programmers read, or the file quoted back at length. */
const INTERNAL = /undefined|Cannot read|is not a function|at \w+ \(|\.js:\d|[^ ]{400}/;

interface Hostile {
  files: number;
  /** Where in the order of all files it begins. */
  from?: number;
  clients: number;
  seed: number;
  until: number;
  /** How long the files made by hand are, of their full length. */
  share?: number;
  /** How long the person who opens ordinary files waits between two. */
  pauseMs?: number;
}

export async function sendHostileFiles(
  world: World,
  { files, from = 0, clients, seed, until, share, pauseMs = 200 }: Hostile,
): Promise<Report> {
  const random = seeded(seed);
  const hand = byHand(share);
  // Those made by hand first, each on one way after the other; then made-up ones.
  const queue = Array.from({ length: files }, (_, at) => from + at).map((n) => ({
    file: n < hand.length * WAYS.length ? hand[(n + seed) % hand.length]!.make() : madeUp(random),
    way: WAYS[(n + seed + Math.floor(n / hand.length)) % WAYS.length]!,
  }));
  // To make them takes seconds in which this process hears nothing; connections that were closed meanwhile are noticed after it.
  await new Promise((goOn) => setTimeout(goOn, 100));
  const watch = new Watch();
  const edits: number[] = [];
  const imports: number[] = [];
  let ended = false;
  await ask(`${world.url}/api/plans/${PLAN}/recover`, post(undefined));
  const names = new Set<string>();
  /** What is on its way, and what was while the slowest edit was answered. */
  const under = new Set<string>();
  let slowest = { ms: 0, at: '' };
  const began = performance.now();
  const client = async (who: number) => {
    for (let next = queue.shift(); next && Date.now() < until; next = queue.shift()) {
      const { file, way } = next;
      const [path, request] = way(file, { 'Idempotency-Key': `hostile${who}.${from}-${queue.length}` });
      const what = `${path} with ${file.name}`;
      under.add(what);
      const answer = await ask(world.url + path, request, limits.fileMs);
      under.delete(what);
      names.add(file.name);
      watch.take(`${path} with ${file.name}`, answer, limits.fileMs);
      const said = JSON.stringify(answer.body);
      // Reading grows with the length alone: no file that a request can bring takes long.
      if (/seconds of processor time|too much memory/.test(said))
        watch.note(`${path} with ${file.name} was ended: ${said.slice(0, 200)}`);
      if (answer.status >= 400 && INTERNAL.test(said))
        watch.note(`${path} with ${file.name}: ${said.slice(0, 300)}`);
    }
  };
  /** Asks as a person does, who looks at a plan and edits it. */
  const timed = async (...asked: Parameters<typeof ask>) => {
    const answer = await ask(...asked);
    edits.push(answer.ms);
    if (answer.ms > slowest.ms) {
      const seconds = Math.round((performance.now() - began) / 1000);
      slowest = { ms: answer.ms, at: `${seconds} s after the start, beside ${[...under].join('; ')}` };
    }
    return answer;
  };
  const typing = async () => {
    const path = `${world.url}/api/plans/${PLAN}`;
    for (let n = 0; !ended; n++) {
      const seen = await timed(path);
      const { revision, plan } = seen.body as { revision: number; plan?: Plan };
      if (!plan) {
        watch.note(`The plan was answered with ${seen.status}: ${JSON.stringify(seen.body).slice(0, 200)}`);
        continue;
      }
      const [channel] = plan.channels;
      const edit = channel
        ? { name: 'change', changes: [{ id: channel.id, set: { note: `typed ${n}` } }] }
        : { name: 'describe', set: { name: `Typed ${n}` } };
      const answer = await timed(
        `${path}/edits`,
        post({ base: revision, edit }, { 'Idempotency-Key': `typing.${from}-${n}` }),
      );
      // 409: somebody's import was faster.
      if (![200, 409].includes(answer.status)) watch.note(`An edit was answered with ${answer.status}`);
      await new Promise((goOn) => setTimeout(goOn, 50));
    }
  };
  const opening = async () => {
    const file = ordinary().toString('base64');
    for (let n = 0; !ended || n === 0; n++) {
      const request = post(
        { base64: file, modelId: 'osprey-d7', slots: 'next free', name: `Ordinary ${n}` },
        { 'Idempotency-Key': `ordinary.${from}-${n}` },
      );
      const answer = await ask(`${world.url}/api/import`, request, limits.fileMs);
      imports.push(answer.ms);
      const { placed, plan } = answer.body as { placed?: number; plan?: string };
      if (answer.status !== 200 || !placed)
        watch.note(
          `An ordinary file was answered with ${answer.status}: ${JSON.stringify(answer.body).slice(0, 200)}`,
        );
      if (plan) await ask(`${world.url}/api/plans/${plan}`, { method: 'DELETE' });
      await new Promise((goOn) => setTimeout(goOn, pauseMs));
    }
  };
  const beside = [typing(), opening()];
  await Promise.all(Array.from({ length: clients }, (_, who) => client(who)));
  ended = true;
  await Promise.all(beside);
  const [usual, worst] = [quantile(edits, 0.95), quantile(edits, 1)];
  if (usual > limits.editMs) watch.note(`95 of 100 looks and edits took up to ${Math.round(usual)} ms`);
  if (worst > limits.editWorstMs) watch.note(`One look or edit took ${Math.round(worst)} ms, ${slowest.at}`);
  const longest = quantile(imports, 1);
  if (longest > limits.importMs) watch.note(`An ordinary file of a megabyte took ${Math.round(longest)} ms`);
  return {
    attack: 'hostile files',
    figures: {
      ...watch.figures(),
      'files of different kinds': names.size,
      'looks and edits beside them': edits.length,
      'looks and edits, 95th and longest, ms': `${Math.round(usual)}, ${Math.round(worst)} (${slowest.at})`,
      'ordinary files, and the longest, ms': `${imports.length}, ${Math.round(longest)}`,
    },
    broken: watch.broken,
  };
}
