import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { AS_USUAL, makeWorld, type World } from '../e2e/world';
import { pullCables } from './cable';
import { neverEnd } from './bodies';
import { spoilCards } from './cards';
import { crowd } from './crowd';
import { hostileBench, lieToSearches } from './directory';
import { kill } from './kills';
import { cutPower, record, type Recording } from './power-cuts';
import { makeUpRequests } from './requests';
import { pourRolls } from './rolls';
import { measureNoTime, type Report } from './figures';
import { sendHostileFiles } from './files';
import { mixUnits } from './units';
import { follow } from './following';

/** A short run of every attack; `npm run attack` is the long one. */

measureNoTime();

const SEED = 20;
const folder = mkdtempSync(join(tmpdir(), 'veridon-attack-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('power cuts', () => {
  let recording: Recording;
  beforeAll(async () => {
    process.env.VERIDON_RESERVE_MB = '1';
    process.env.VERIDON_DATA_DIR = join(folder, 'cuts');
    recording = await record(join(folder, 'cuts'), 80, SEED);
  });

  test('wherever the power is cut, every edit that was answered is there, and the log leads back', async () => {
    const { cuts, answered, faults } = await cutPower(recording, { cuts: 8, seed: SEED });
    expect(faults).toEqual([]);
    expect(cuts).toBe(8);
    expect(answered).toBeGreaterThan(80);
  });

  test('on a disk that only says that it has synced, this test finds what is lost', async () => {
    const { faults } = await cutPower(recording, { cuts: 6, seed: SEED, lying: true });
    expect(faults.length).toBeGreaterThanOrEqual(4);
  });
});

describe('against the running application', () => {
  let world: World;
  let between: Awaited<ReturnType<typeof hostileBench>>;
  beforeAll(async () => {
    between = await hostileBench(() => world.bench);
    // A body may pause as long as this process may stand still while others have the machine.
    const env = { VERIDON_BENCH_URL: between.url, VERIDON_BODY_IDLE_MS: '30000', ...AS_USUAL };
    world = await makeWorld({ env, speed: 100 });
  });
  afterAll(async () => {
    await world?.close();
    between?.close();
  });
  const until = () => Infinity;
  const held = ({ broken, figures }: Report) => {
    console.log(JSON.stringify(figures));
    expect(broken).toEqual([]);
    return figures;
  };

  test('made-up requests over every operation', async () => {
    const figures = held(await makeUpRequests(world, { requests: 600, seed: SEED, until: until() }));
    expect(figures.answers).toBeGreaterThanOrEqual(600);
    expect(figures.accepted).toBeGreaterThan(100);
  });
  test('a crowd on the same plans', async () => {
    const some = { clients: 6, greedy: 2, edits: 8, seed: SEED, until: until() };
    expect(held(await crowd(world, some))['edits kept']).toBeGreaterThan(12);
  });
  test('a directory that lies', async () => {
    held(await lieToSearches(world, between.behave, { searches: 16, seed: SEED, until: until() }));
  });
  // In parts, so that a slow machine has the time of a test for each.
  test.each([0, 10, 20, 30])('hostile files, ten from number %d on', async (from) => {
    const some = { files: 10, from, clients: 4, seed: SEED, until: until() };
    // The long attack sends them at their full length, and measures how long ordinary files take; here a quarter shows what hangs or grows too fast, and a few ordinary ones are enough.
    const figures = held(await sendHostileFiles(world, { ...some, share: 0.25, pauseMs: 5000 }));
    expect(figures['files of different kinds']).toBe(10);
  });
  test('bodies that never end', async () => {
    held(await neverEnd(world, { lines: 20 }));
  });
  test('a row without an end in a roll', async () => {
    held(await pourRolls(world, between.behaveRoll, ['one row without end']));
  });
  test('cables', async () => {
    held(await pullCables(world, { faults: 6, seed: SEED, until: until() }));
  });
  test('cards', async () => {
    held(await spoilCards(world, { rounds: 5, seed: SEED, until: until() }));
  });
  test('a radio and a plan that follow each other', async () => {
    const figures = held(await follow(world, { rounds: 5, seed: SEED, until: until() }));
    expect(figures.typed).toBeGreaterThan(2);
    expect(figures.pressed).toBeGreaterThan(2);
  });
  test('two digital radios, their own values and a plan', async () => {
    const figures = held(await mixUnits(world, { rounds: 24, seed: SEED, until: until() }));
    expect(figures.write).toBeGreaterThan(1);
    expect(figures.taken).toBeGreaterThan(0);
  });
  test('kills', async () => {
    expect(held(await kill(world, { kills: 3, seed: SEED, until: until() })).kills).toBe(3);
    expect(world.output()).not.toMatch(/^\s*\w*Error:/m);
  });
});
