// npm run shots: makes every picture of docs/screenshots anew, from the demo's data, at 1280x800.
/* global DataTransfer, DragEvent, File */
import { spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { launchOptions } from './browser.cjs';
import { freePort } from './ports.mjs';
import { build, installPackages, wantChromium } from './prepare.mjs';

installPackages();
const executablePath = wantChromium();
await build();
const { default: puppeteer } = await import('puppeteer-core');

const folder = mkdtempSync(join(tmpdir(), 'veridon-shots-'));
const [port, benchPort] = [await freePort(), await freePort()];
const env = {
  ...process.env,
  VERIDON_PORT: String(port),
  VERIDON_BENCH_PORT: String(benchPort),
  VERIDON_DATA_DIR: join(folder, 'data'),
  VERIDON_BENCH_SPEED: '4',
};
const demo = spawn(process.execPath, ['scripts/demo.mjs'], { env, stdio: 'pipe' });
await new Promise((done, failed) => {
  demo.stdout.on('data', (bytes) => String(bytes).includes('Veridon is ready') && done());
  demo.on('exit', () => failed(new Error('The demo did not start')));
});
demo.removeAllListeners('exit');

const url = `http://127.0.0.1:${port}`;
const plan = `${url}/plans/pl_ketterbyweekend`;
const browser = await puppeteer.launch(launchOptions(executablePath, join(folder, 'browser')));
const page = await browser.newPage();
await page.setViewport({ width: 1280, height: 800 });
mkdirSync('docs/screenshots', { recursive: true });
const pause = (ms) => new Promise((done) => setTimeout(done, ms));
const theme = (value) => page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value }]);
const shot = async (name) => {
  await pause(700);
  await page.screenshot({ path: `docs/screenshots/${name}.png` });
  console.log(`docs/screenshots/${name}.png`);
};
const press = async (name) => {
  const button = await page.waitForSelector(`::-p-aria([name="${name}"][role="button"])`);
  // What it does may have to be worked out first.
  await page.waitForFunction((one) => !one.disabled, {}, button);
  await button.click();
};
const sees = (text) => page.waitForSelector(`::-p-text(${text})`, { timeout: 40_000 });
const job = (body) => fetch(`${url}/api/jobs`, { method: 'POST', body: JSON.stringify(body) });

const key = () => readFileSync(join(folder, 'data', 'bench', 'key'), 'utf8');
const order = (path, body) =>
  fetch(`http://127.0.0.1:${benchPort}/bench/radios/tern-1${path}`, {
    method: 'POST',
    headers: { Authorization: `Bearer ${key()}` },
    body: JSON.stringify(body),
  });

await theme('light');
await page.goto(plan);
await page.waitForSelector('#cell-5-tx');
await page.click('#cell-5-tx');
await shot('plan');

await page.goto(`${url}/find?plan=pl_ketterbyweekend`);
await page.waitForSelector('[aria-label="Map"] canvas');
await sees('stations that this radio can use');
await press('Search');
await page.waitForSelector('tbody [role=checkbox]');
const boxes = await page.$$('tbody [role=checkbox]');
for (const box of boxes.slice(0, 12)) await box.click();
await shot('find');
await page.goto(
  `${url}/find?plan=pl_threedays&route=52.06,-29.84;51.203,-30.6988;51.2763,-31.6665&name=Ketterby;Garrowick;Perrin Cross&km=15&days=2`,
);
await page.waitForSelector('tbody [role=checkbox]');
await press('Choose…');
await press('Choose 30');
await shot('find-route');

await page.goto(plan);
await page.waitForSelector('#cell-11-rx');
await page.click('#cell-11-rx');
await page.keyboard.down('Shift');
await page.click('#cell-16-rx');
await page.keyboard.up('Shift');
await page.keyboard.press('l');
await press('Use 110.9');
await press('Use -0.6');

const tab = async (name) => {
  for (const one of await page.$$('[role=tab]'))
    if ((await one.evaluate((element) => element.textContent)).startsWith(name)) await one.click();
};
await order('', { plugged: true });
await page.goto(`${url}/bench?plan=pl_ketterbyweekend`);
await press('Read');
await sees('was read');
// What stands below moves down for the word that it is done.
await pause(700);
await press('Write to LK204417');
await press('Write it');
await sees('read back as they were sent');
// The radio is changed on its own keys, and read again: what is held three ways.
for (const key of [
  { slot: 0, name: 'SHIPS', rx: 145_525_000 },
  { slot: 3, clear: true },
  { slot: 60, name: 'REGATT', rx: 145_225_000 },
])
  await order('', { key });
await press('All right');
await press('Read');
await page.waitForSelector('[aria-label="Done on its keys"] li');
await shot('bench-by-hand');
await order('', { battery: 70 });
await page.goto(`http://127.0.0.1:${benchPort}/`);
await sees('Gannet M8, in the van');
await shot('bench-table');
await page.goto(`${url}/people`);
await press('Load the Ident Roll');
await sees('All 250,000');
await sees('Q7AAA');
await press('Choose for a radio');
await press('Load the Heard Board');
await page.waitForSelector('[role=slider]', { timeout: 60_000 });
await page.waitForSelector('[aria-label="Those who are chosen"] li');
await shot('people-cut');
await page.goto(`${url}/data`);
await press('Back up now');
await sees('asked for');
await shot('data');

await fetch(`${url}/api/plans/pl_ketterbyweekend/duplicate`, { method: 'POST' });
await page.goto(`${url}/`);
await sees('Ketterby weekend, copy');
await page.waitForFunction(() => !document.body.innerText.includes('checking…'));
await shot('plans');

await page.goto(`${url}/plans/pl_threedays/organise`);
await page.waitForSelector('[role=listbox] [role=option]');
await page.click('[role=listbox] [role=option]:nth-of-type(2)');
await page.keyboard.down('Shift');
await page.keyboard.press('ArrowDown');
await page.keyboard.press('ArrowDown');
await page.keyboard.up('Shift');
await shot('organise');
await tab('Quick set-ups');
await sees('Anchor');
await shot('quick-set-ups');
await page.goto(`${url}/plans/pl_rescueteam/organise`);
await page.waitForSelector('[aria-label="Positions of the knob"]');
await page.click('#knob-3');
await shot('knob');
await tab('Wiring');
await page.waitForSelector('[data-wired]');
await shot('wiring');
await page.goto(`${url}/plans/pl_islesnetwork/organise`);
await page.waitForSelector('[role=tab]');
await tab('Matrix');
await page.waitForSelector('[role=grid] [role=row]');
await shot('matrix');

await page.goto(`${plan}/radios`);
await press('Make one for the Gannet M8');
await (await page.waitForSelector('[role=row]:nth-of-type(2) [role=cell] button')).click();
await shot('radios');

// A friend's list, in another order and wording, with rows that nobody understands.
await page.goto(`${url}/plans/pl_harbouroffice`);
await page.waitForSelector('[role=grid]');
await page.evaluate(() => {
  const text = [
    'Site;Output kHz;Offset kHz;CTCSS;Lat;Lon;Sysop',
    'Ullsmere Hill;145612,5;-600;88,5;52,06;-29,84;Q7UL',
    'Brannoch Head;145737,5;-600;94,8;52,48;-30,02;Q7BH',
    'Stennick Pier;by day;-600;;52,31;-29,44;Q7ST',
    'Perrin Cross;439050;-7600;118,8;51,28;-31,66;Q8PC',
    'Quill Top;145762,5;-600;loud;51,9;-30,9;Q8QT',
    'Hollin Bay;433500;0;;52,02;-29,31;Q7HB',
  ].join('\r\n');
  const data = new DataTransfer();
  data.items.add(new File([text], 'hills of a friend.csv'));
  document
    .querySelector('main')
    .dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
});
await page.waitForSelector('[aria-label="What comes of it"] li');
await shot('file-import');

await page.goto(`${url}/plans/pl_ketterbyweekend/paper?as=card`);
await page.waitForSelector('.leaf');
await shot('paper-card');

await page.goto(`${url}/plans/pl_harbouroffice/bytes`);
await page.waitForSelector('nav[aria-label=Areas] li:nth-of-type(4) button');
await page.click('nav[aria-label=Areas] li:nth-of-type(4) button');
await pause(700);
await (await page.$$('table button'))[75].click();
await shot('bytes');

/** The face beside the table, for one cell of a plan; with the key down where it is held. */
await theme('dark');
await page.goto(plan);
await page.waitForSelector('#cell-5-tx');
await page.click('#cell-5-tx');
const hold = await (
  await page.waitForSelector('::-p-aria([name="Hold to send"][role="button"])')
).boundingBox();
await page.mouse.move(hold.x + 10, hold.y + 40);
await page.mouse.down();
await shot('plan-dark-sending');
await page.mouse.up();

await order('/faults', { kind: 'pull', atByte: 5000 });
const { revision } = await (await fetch(`${url}/api/plans/pl_ketterbyweekend`)).json();
await page.goto(`${url}/bench?plan=pl_ketterbyweekend`);
const { radios } = await (await fetch(`${url}/api/radios`)).json();
const radioId = radios.find(({ serial }) => serial === 'LK204417').id;
await job({ kind: 'write', radioId, planId: 'pl_ketterbyweekend', planRevision: revision });
await sees('half written');
await shot('bench-broken-off');

await browser.close();
demo.kill('SIGTERM');
await new Promise((done) => demo.once('exit', done));
rmSync(folder, { recursive: true, force: true });
