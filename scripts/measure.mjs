// npm run measure: the numbers that Veridon is held to, each the median of several runs, on this machine.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { gzipSync } from 'node:zlib';
import { launchOptions } from './browser.cjs';
import { freePort } from './ports.mjs';
import { measurePlans } from './measure-plans.mjs';
import { build, installPackages, wantChromium } from './prepare.mjs';

installPackages();
const chromium = wantChromium();
build();
const { default: puppeteer } = await import('puppeteer-core');

const median = (values) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
const pause = (ms) => new Promise((done) => setTimeout(done, ms));
const folder = mkdtempSync(join(tmpdir(), 'veridon-measure-'));
const rows = [];
const report = (what, values, unit, note = '') => {
  const shown = `${median(values).toFixed(unit === 'ms' || unit === 'kB' ? 1 : 3)} ${unit}`;
  rows.push([what, shown, `${values.length} runs${note && `; ${note}`}`]);
  console.log(`${what}: ${shown} (${rows.at(-1)[2]})`);
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
  return { url: `http://127.0.0.1:${port}`, bench: `http://127.0.0.1:${benchPort}`, ms, stop };
}

// Start of the demo when everything is installed and built: with an empty data directory, and with one that is there.
const first = [];
const again = [];
for (let run = 0; run < 3; run++) {
  const data = join(folder, `start-${run}`);
  const one = await demo(data, 4);
  first.push(one.ms);
  await one.stop();
  const two = await demo(data, 4);
  again.push(two.ms);
  await two.stop();
}
report('Demo start, installed and built, new data directory', first, 'ms');
report('Demo start, data directory there already', again, 'ms');

const SPEED = 8;
const world = await demo(join(folder, 'world'), SPEED);
const ask = async (path, body) =>
  (await fetch(world.url + path, body && { method: 'POST', body: JSON.stringify(body) })).json();
const made = await ask('/api/plans', { name: 'Full plan', modelId: 'tern-p2', owner: { callSign: 'Q7ABC' } });
const letters = 'abcdefghijklmnop';
const channels = Array.from({ length: 150 }, (_, i) => ({
  id: `ch_full${letters[i >> 4]}${letters[i & 15]}`,
  name: `Station ${i}`,
  fitted: {},
  rx: 145_600_000 + (i % 16) * 12_500 + Math.floor(i / 16) * 100_000,
  tx: 145_000_000 + (i % 16) * 12_500 + Math.floor(i / 16) * 100_000,
  txFixed: false,
  access: { kind: 'analogue', send: { kind: 'tone', tone: 885 }, expect: null },
  mode: 'FM',
  power: 2000,
  scan: true,
  alwaysOn: false,
  note: '',
  source: null,
}));
const placed = await ask(`/api/plans/${made.plan.id}/edits`, {
  base: 1,
  edit: { name: 'place', channels, placement: 'next-free', at: 0, range: { first: 0, count: 150 } },
});
if (placed.revision !== 2) throw new Error(JSON.stringify(placed));

const browser = await puppeteer.launch(launchOptions(chromium, join(folder, 'browser')));

// From asking for the page of a full plan to the first character in a cell.
const typed = [];
for (let run = 0; run < 7; run++) {
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  const began = performance.now();
  await page.goto(`${world.url}/plans/${made.plan.id}`, { waitUntil: 'domcontentloaded' });
  await page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'grid', {
    polling: 'raf',
  });
  await page.keyboard.type('x');
  await page.waitForFunction(() => document.activeElement?.value === 'x', { polling: 'raf' });
  typed.push(performance.now() - began);
  await page.close();
}
report('Plan page (150 channels) to first typed character', typed, 'ms');

// From the key that ends typing to the frame that shows the new value; fit, check and strip are worked out in between.
const page = await browser.newPage();
await page.setViewport({ width: 1280, height: 800 });
await page.goto(`${world.url}/plans/${made.plan.id}`);
await page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'grid');
const paints = [];
for (let run = 0; run < 25; run++) {
  await page.keyboard.press('Home');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.type(`Paint ${run}`);
  paints.push(
    await page.evaluate(
      () =>
        new Promise((done) => {
          const began = performance.now();
          document.activeElement.dispatchEvent(
            new KeyboardEvent('keydown', { key: 'Enter', bubbles: true, cancelable: true }),
          );
          requestAnimationFrame(() => {
            const channel = new MessageChannel();
            channel.port1.onmessage = () => done(performance.now() - began);
            channel.port2.postMessage(null);
          });
        }),
    ),
  );
}
report('Edit to paint (150 channels)', paints, 'ms', 'the next frame is up to 16.7 ms away by itself');
await page.close();

// JavaScript that the plan page loads, compressed, beside an empty page of the same build. What it names
// and what its worker loads are counted apart.
async function weight(path) {
  const page = await browser.newPage();
  await page.setCacheEnabled(false);
  const sizes = new Map();
  const reading = [];
  page.on('response', (response) => {
    const url = response.url();
    if (!/\.js(\?|$)/.test(url)) return;
    reading.push(response.buffer().then((body) => sizes.set(url, gzipSync(body, { level: 9 }).length)));
  });
  // Until nothing more is asked for: what the worker beside the page loads counts too, but for itself.
  const html = await (await page.goto(world.url + path, { waitUntil: 'networkidle0' })).text();
  await pause(300);
  for (let read = 0; read < reading.length; read++) await reading[read];
  await page.close();
  const sum = (of) => of.reduce((bytes, [, one]) => bytes + one, 0) / 1000;
  const own = [...sizes].filter(([url]) => html.includes(new URL(url).pathname));
  return { bytes: sum(own), beside: sum([...sizes].filter((one) => !own.includes(one))) };
}
const plan = await weight(`/plans/${made.plan.id}`);
await measurePlans({ world, browser, dataFolder: join(folder, 'world'), report });
await world.stop();

// The empty page is built from the same application with everything but the frame of Next taken away.
const empty = join(folder, 'empty');
spawnSync('mkdir', ['-p', join(empty, 'src', 'app')]);
writeFileSync(
  join(empty, 'src/app/layout.tsx'),
  'export default function Layout({ children }: { children: React.ReactNode }) { return <html><body>{children}</body></html>; }\n',
);
writeFileSync(join(empty, 'src/app/page.tsx'), 'export default function Page() { return <p>Empty</p>; }\n');
writeFileSync(join(empty, 'package.json'), readFileSync('package.json'));
writeFileSync(
  join(empty, 'next.config.mjs'),
  `export default { typescript: { ignoreBuildErrors: true }, turbopack: { root: ${JSON.stringify('/')} } };\n`,
);
spawnSync('ln', ['-s', resolve('node_modules'), join(empty, 'node_modules')]);
const next = resolve('node_modules/next/dist/bin/next');
const built = spawnSync(process.execPath, [next, 'build'], {
  cwd: empty,
  encoding: 'utf8',
  env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
});
if (built.status === 0) {
  const port = await freePort();
  const server = spawn(process.execPath, [next, 'start', '-H', '127.0.0.1', '-p', String(port)], {
    cwd: empty,
    stdio: 'ignore',
  });
  for (let i = 0; i < 100 && !(await fetch(`http://127.0.0.1:${port}`).catch(() => null)); i++)
    await pause(100);
  world.url = `http://127.0.0.1:${port}`;
  const bare = await weight('/');
  server.kill('SIGKILL');
  report(
    'JavaScript of the plan page, compressed',
    [plan.bytes],
    'kB',
    `an empty page of the same build: ${bare.bytes.toFixed(1)} kB; ${(plan.bytes / bare.bytes).toFixed(2)} times; what is fetched after it, its worker among it, ${plan.beside.toFixed(1)} kB more`,
  );
} else {
  report('JavaScript of the plan page, compressed', [plan.bytes], 'kB', 'the empty page could not be built');
  console.error(built.stdout?.slice(-800), built.stderr?.slice(-800));
}
await browser.close();

// Fit and check of a full plan, and write throughput, are measured in the core and over a real port.
let failed = 0;
for (const part of ['scripts/measure-core.ts', 'scripts/measure-large.ts', 'scripts/measure-durability.ts'])
  failed += spawnSync(process.execPath, ['--import', 'tsx', part], { stdio: 'inherit' }).status === 0 ? 0 : 1;
rmSync(folder, { recursive: true, force: true });
process.exit(failed);
