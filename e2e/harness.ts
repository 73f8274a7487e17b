import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type KeyInput, type Page } from 'puppeteer-core';

/** Starts the real bench and the real application on free ports with data of their own, and a browser to use them. */

const CHROMIUM = process.env.VERIDON_CHROMIUM ?? '/usr/bin/chromium';

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => resolve(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

export const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Asks until the answer is there, or fails with what was waited for. */
export async function until<T>(
  what: string,
  ask: () => Promise<T | undefined | false | null>,
  ms = 15_000,
): Promise<T> {
  const end = Date.now() + ms;
  for (;;) {
    const answer = await ask();
    if (answer) return answer;
    if (Date.now() > end) throw new Error(`Waited ${ms / 1000} s for ${what}`);
    await pause(50);
  }
}

export interface World {
  url: string;
  bench: string;
  folder: string;
  /** What the application printed. */
  output: () => string;
  api: <T = Record<string, never>>(
    path: string,
    method?: string,
    body?: unknown,
  ) => Promise<{ status: number; body: T }>;
  atBench: (path: string, body: unknown) => Promise<unknown>;
  kill: (signal: NodeJS.Signals) => Promise<void>;
  start: () => Promise<void>;
  close: () => Promise<void>;
}

function stop(child: ChildProcess | undefined, signal: NodeJS.Signals): Promise<void> {
  if (!child || child.exitCode !== null || child.signalCode !== null) return Promise.resolve();
  return new Promise((resolve) => {
    child.once('exit', () => resolve());
    child.kill(signal);
  });
}

/** A bench and an application. `speed` is how much faster than real the radios' lines are. */
export async function makeWorld({
  speed = 40,
  env = {},
}: { speed?: number; env?: Record<string, string> } = {}): Promise<World> {
  if (!existsSync('.next/BUILD_ID'))
    throw new Error('There is no build: run npm test, or npx next build first.');
  const folder = mkdtempSync(join(tmpdir(), 'veridon-'));
  const [port, benchPort] = [await freePort(), await freePort()];
  const url = `http://127.0.0.1:${port}`;
  const bench = `http://127.0.0.1:${benchPort}`;
  const all: NodeJS.ProcessEnv = {
    ...process.env,
    NODE_ENV: 'production',
    VERIDON_DEMO: '1',
    VERIDON_DATA_DIR: join(folder, 'data'),
    VERIDON_BENCH_URL: bench,
    VERIDON_BENCH_PORT: String(benchPort),
    VERIDON_BENCH_DIR: join(folder, 'bench'),
    VERIDON_BENCH_SPEED: String(speed),
    VERIDON_DIRECTORY_PATIENCE_MS: '1500',
    ...env,
  };
  const sim = spawn(process.execPath, ['--import', 'tsx', 'src/sim/main.ts'], { env: all, stdio: 'pipe' });
  let app: ChildProcess | undefined;
  let output = '';
  const start = async () => {
    app = spawn(
      process.execPath,
      ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', String(port)],
      { env: all, stdio: 'pipe' },
    );
    for (const stream of [app.stdout, app.stderr]) stream?.on('data', (bytes) => (output += String(bytes)));
    await until(
      'the application',
      async () => (await fetch(`${url}/api/health`).catch(() => null))?.ok,
      60_000,
    );
  };
  await until('the bench', async () => (await fetch(`${bench}/bench/ports`).catch(() => null))?.ok, 30_000);
  await start();
  return {
    url,
    bench,
    folder,
    output: () => output,
    async api(path, method = 'GET', body) {
      const response = await fetch(url + path, {
        method,
        ...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) }),
      });
      return { status: response.status, body: await response.json() };
    },
    atBench: async (path, body) =>
      (await fetch(bench + path, { method: 'POST', body: JSON.stringify(body) })).json(),
    kill: (signal) => stop(app, signal),
    start,
    close: async () => {
      await Promise.all([stop(app, 'SIGKILL'), stop(sim, 'SIGTERM')]);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** A browser with a profile of its own; `errors` gathers what pages complain of. */
export async function makeBrowser(): Promise<{
  browser: Browser;
  page: Page;
  errors: string[];
  close: () => Promise<void>;
}> {
  const profile = mkdtempSync(join(tmpdir(), 'veridon-browser-'));
  const browser = await puppeteer.launch({
    executablePath: CHROMIUM,
    headless: true,
    args: [
      '--no-sandbox',
      '--disable-gpu',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      `--user-data-dir=${profile}`,
    ],
  });
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(String(error)));
  page.on(
    'console',
    (message) =>
      message.type() === 'error' &&
      !/Failed to load resource/.test(message.text()) &&
      errors.push(message.text()),
  );
  return {
    browser,
    page,
    errors,
    close: async () => {
      await browser.close();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

/** The text of the first element that the selector finds, its white space folded; empty where there is none. */
export const textOf = (page: Page, selector: string): Promise<string> =>
  page.evaluate(
    (wanted) => (document.querySelector(wanted)?.textContent ?? '').replace(/\s+/g, ' ').trim(),
    selector,
  );

/** Waits until an element holds a text. */
export const sees = (page: Page, selector: string, text: string | RegExp, ms?: number): Promise<string> =>
  until(
    `“${text}” in ${selector} (there is: ${selector})`,
    async () => {
      const found = await textOf(page, selector);
      return (typeof text === 'string' ? found.includes(text) : text.test(found)) ? found : undefined;
    },
    ms,
  );

/** Clicks the button or link with that name. */
export async function press(page: Page, name: string): Promise<void> {
  const handle = await until(`a button or link “${name}”`, async () => {
    const found = await page.$(`::-p-aria([name="${name}"][role="button"])`);
    return (
      found ??
      (await page.$(`::-p-aria([name="${name}"][role="link"])`)) ??
      (await page.$(`::-p-aria([name="${name}"][role="tab"])`))
    );
  });
  await handle.click();
}

/** The selector of a cell of the channel table, scrolled to; by slot and column. */
export async function cell(page: Page, slot: number, column: string): Promise<string> {
  const figures = String(slot).padStart(3, '0');
  const find = () =>
    page.evaluate((wanted) => {
      const row = [...document.querySelectorAll('[role=grid] [data-column=slot]')].find(
        (element) => element.textContent === wanted,
      );
      return row?.getAttribute('data-row') ?? null;
    }, figures);
  const scroll = (top: number) =>
    page.evaluate((y) => {
      const scroller = document.querySelector('[role=grid] > div')!;
      scroller.scrollTop = y;
      return scroller.scrollTop >= scroller.scrollHeight - scroller.clientHeight - 1;
    }, top);
  for (let top = 0, end = false; ; top += 250) {
    const row = await find();
    if (row !== null) {
      const selector = `#cell-${row}-${column}`;
      await page.$eval(selector, (element) => element.scrollIntoView({ block: 'center' }));
      return selector;
    }
    if (end) throw new Error(`There is no slot ${figures}`);
    end = await scroll(top);
    await pause(40);
  }
}

/** Types into a cell as a person does: click, type over, Enter. */
export async function type(page: Page, slot: number, column: string, text: string): Promise<void> {
  await page.click(await cell(page, slot, column));
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

/** Waits until all that was done is on disk. */
export const kept = (page: Page) => sees(page, 'header [role=status]', /^Kept, revision \d+$/);

/** Strikes keys one after the other; `Control+z` is a chord. */
export async function strike(page: Page, ...names: string[]): Promise<void> {
  for (const name of names) {
    const parts = name.split('+') as KeyInput[];
    const held = parts.slice(0, -1);
    for (const key of held) await page.keyboard.down(key);
    await page.keyboard.press(parts.at(-1)!);
    for (const key of held) await page.keyboard.up(key);
  }
}
