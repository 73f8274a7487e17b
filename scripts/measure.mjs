// npm run measure: the numbers that Veridon is held to, each the median of several runs, on this machine.
// npm run measure -- start page: only those parts of it.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { launchOptions } from './browser.cjs';
import { measureDigital } from './measure-digital.mjs';
import { measureFind } from './measure-find.mjs';
import { measureLinks } from './measure-links.mjs';
import { measureLive } from './measure-live.mjs';
import { measureMap } from './measure-map.mjs';
import { measurePage } from './measure-page.mjs';
import { measurePeople } from './measure-people.mjs';
import { measurePlans, memoryOf } from './measure-plans.mjs';
import { measureStart } from './measure-start.mjs';
import { measureWeight } from './measure-weight.mjs';
import { freePort } from './ports.mjs';
import { build, installPackages, wantChromium } from './prepare.mjs';

const PARTS = [
  'start',
  'page',
  'plans',
  'weight',
  'find',
  'files',
  'links',
  'live',
  'people',
  'digital',
  'core',
];
const asked = process.argv.slice(2);
const unknown = asked.filter((part) => !PARTS.includes(part));
if (unknown.length > 0) {
  console.error(`There is no part ${unknown.join(', ')}; there are ${PARTS.join(', ')}.`);
  process.exit(1);
}
const wants = (part) => asked.length === 0 || asked.includes(part);

installPackages();
const chromium = wantChromium();
await build();
const { default: puppeteer } = await import('puppeteer-core');

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const folder = mkdtempSync(join(tmpdir(), 'veridon-measure-'));
const report = (what, values, unit, note = '') => {
  const shown = `${median(values).toFixed(unit === 'ms' || unit === 'kB' ? 1 : 3)} ${unit}`;
  console.log(`${what}: ${shown} (${values.length} runs${note && `; ${note}`})`);
};

/**
 * The machine's own pace, which differs by a factor of two from hour to hour: the same plain work each time, to hold the other
 * numbers against.
 */
function yardstick() {
  const rows = Array.from({ length: 20_000 }, (_, n) => ({
    id: `row${(n * 7919) % 20_000}`,
    n,
    text: 'x'.repeat(n % 40),
  }));
  return Array.from({ length: 15 }, () => {
    const began = performance.now();
    JSON.parse(JSON.stringify(rows)).sort((a, b) => (a.id < b.id ? -1 : 1));
    return performance.now() - began;
  });
}
report('Yardstick: 20,000 records written, read and sorted', yardstick(), 'ms');

/** Files are read by a worker, whose code is bundled: what is measured is a bundle too. */
async function measureFiles() {
  const { buildSync } = await import('esbuild');
  const outfile = join(folder, 'measure-files.cjs');
  buildSync({ entryPoints: ['scripts/measure-files.ts'], bundle: true, platform: 'node', outfile });
  spawnSync(process.execPath, ['--expose-gc', outfile], { stdio: 'inherit' });
}

async function demo(data, speed) {
  const [port, benchPort] = [await freePort(), await freePort()];
  const env = {
    ...process.env,
    VERIDON_PORT: String(port),
    VERIDON_BENCH_PORT: String(benchPort),
    VERIDON_DATA_DIR: resolve(data),
    VERIDON_BENCH_SPEED: String(speed),
  };
  const began = performance.now();
  const child = spawn(process.execPath, ['scripts/demo.mjs'], { env, stdio: 'pipe' });
  await new Promise((done, failed) => {
    let said = '';
    child.stdout.on('data', (bytes) => (said += bytes).includes('Veridon is ready') && done());
    child.on('exit', () => failed(new Error(said)));
  });
  const ms = performance.now() - began;
  const stop = () =>
    new Promise(
      (done) => (child.removeAllListeners('exit'), child.once('exit', done), child.kill('SIGTERM')),
    );
  return { url: `http://127.0.0.1:${port}`, bench: `http://127.0.0.1:${benchPort}`, port, ms, stop };
}

const context = { demo, folder, report };
if (wants('start')) await measureStart(context);
if (['page', 'plans', 'weight', 'files', 'digital'].some(wants)) {
  const browser = await puppeteer.launch(launchOptions(chromium, join(folder, 'browser')));
  const world = await demo(join(folder, 'world'), 8);
  const inWorld = { ...context, world, browser, dataFolder: join(folder, 'world') };
  if (wants('page')) await measurePage(inWorld);
  if (wants('weight')) await measureWeight(inWorld);
  if (wants('plans')) await measurePlans(inWorld);
  if (wants('digital')) await measureDigital(inWorld);
  if (wants('files')) await measureMap({ ...inWorld, planId: 'pl_ketterbyweekend' });
  await world.stop();
  await browser.close();
}

if (wants('find')) await measureFind(context);

if (wants('files')) await measureFiles();

if (wants('links')) await measureLinks({ ...context, memoryOf });
if (wants('live')) await measureLive(context);
if (wants('people')) await measurePeople({ ...context, memoryOf });

// Fit and check of a full plan, and write throughput, are measured in the core and over a real port.
let failed = 0;
if (wants('core'))
  for (const part of [
    'scripts/measure-core.ts',
    'scripts/measure-large.ts',
    'scripts/measure-shelf.ts',
    'scripts/measure-durability.ts',
  ])
    failed +=
      spawnSync(process.execPath, ['--import', 'tsx', part], { stdio: 'inherit' }).status === 0 ? 0 : 1;
rmSync(folder, { recursive: true, force: true });
process.exit(failed);
