import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Bench } from '../src/core/bench';
import { HANG_MS, pause, until } from '../src/core/until.test.kit';

/** Starts the real bench and the real application on free ports with data of their own. */

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

/** The plan that the demo brings. */
export const PLAN = 'pl_ketterbyweekend';

export { HANG_MS, pause, until };

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
  /** Asks the bench with its key; with a body it orders something. */
  atBench: (path: string, body?: unknown) => Promise<unknown>;
  /** Veridon's id of a radio that is plugged in. */
  radioId: (serial: string) => Promise<string>;
  /** The application's process, as long as it runs. */
  pid: () => number | undefined;
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

/** How long the application is patient with directories in daily use. */
export const AS_USUAL = { VERIDON_DIRECTORY_PATIENCE_MS: '8000', VERIDON_NEIGHBOUR_PATIENCE_MS: '1500' };

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
    // The options of the tests' own processes are not the application's.
    NODE_OPTIONS: '',
    VERIDON_DEMO: '1',
    VERIDON_DATA_DIR: join(folder, 'data'),
    VERIDON_BENCH_URL: bench,
    VERIDON_BENCH_PORT: String(benchPort),
    VERIDON_BENCH_DIR: join(folder, 'bench'),
    VERIDON_BENCH_SPEED: String(speed),
    // Only a directory that never answers is given up on; where a test wants that, it says so.
    VERIDON_DIRECTORY_PATIENCE_MS: String(HANG_MS),
    VERIDON_NEIGHBOUR_PATIENCE_MS: String(HANG_MS),
    VERIDON_LINK_QUIET_MS: '20000',
    // Written at once, a card would be whole before the bench can take it out.
    VERIDON_CARD_PAUSE_MS: '25',
    VERIDON_ROLL_PEOPLE: '20000',
    VERIDON_BOARD_KEY_UPS: '30000',
    ...env,
  };
  // As it was built, which takes a third of the time.
  const sim = spawn(process.execPath, ['.build/bench.mjs'], { env: all, stdio: 'pipe' });
  let app: ChildProcess | undefined;
  let output = '';
  const start = async () => {
    app = spawn(process.execPath, ['src/door/server.mjs', String(port)], { env: all, stdio: 'pipe' });
    for (const stream of [app.stdout, app.stderr]) stream?.on('data', (bytes) => (output += String(bytes)));
    await until('the application', async () => (await fetch(`${url}/api/health`).catch(() => null))?.ok);
  };
  await until('the bench', async () => (await fetch(bench).catch(() => null))?.ok);
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
      (
        await fetch(bench + path, {
          headers: { Authorization: `Bearer ${readFileSync(join(folder, 'bench', 'key'), 'utf8')}` },
          ...(body !== undefined && { method: 'POST', body: JSON.stringify(body) }),
        })
      ).json(),
    async radioId(serial) {
      const { radios } = (await (await fetch(`${url}/api/radios`)).json()) as Bench;
      return radios.find((radio) => radio.serial === serial)!.id;
    },
    pid: () => app?.pid,
    kill: (signal) => stop(app, signal),
    start,
    close: async () => {
      await Promise.all([stop(app, 'SIGKILL'), stop(sim, 'SIGTERM')]);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
