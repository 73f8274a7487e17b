import { execFileSync, spawn } from 'node:child_process';
import { rmSync, statfsSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { freePort, HANG_MS, makeWorld, PLAN, type World } from './harness';

/** Starting where something is in the way, and working where room runs out. */

type Plan = { plan: { name: string }; revision: number };
type Problem = { detail: string; status: number };

let world: World;
beforeAll(async () => {
  world = await makeWorld();
});
afterAll(() => world?.close());

/** Runs a script or server to its end and gives what it printed. */
function runToEnd(
  args: string[],
  env: Record<string, string>,
): Promise<{ code: number | null; output: string }> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, args, { env: { ...process.env, ...env }, stdio: 'pipe' });
    let output = '';
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (bytes) => (output += String(bytes)));
    const patience = setTimeout(() => child.kill('SIGKILL'), HANG_MS);
    child.on('exit', (code) => {
      clearTimeout(patience);
      resolve({ code, output });
    });
  });
}

describe('at the start', () => {
  const application = async () => ['src/door/server.mjs', String(await freePort())];

  test('a taken port is said plainly', async () => {
    const port = await freePort();
    const holder = createServer().listen(port, '127.0.0.1');
    const demo = await runToEnd(['scripts/demo.mjs'], {
      VERIDON_PORT: String(port),
      VERIDON_DATA_DIR: `${world.folder}/other`,
    });
    const bench = await runToEnd(['--import', 'tsx', 'src/sim/main.ts'], {
      VERIDON_BENCH_PORT: String(port),
      VERIDON_BENCH_DIR: `${world.folder}/other-bench`,
    });
    holder.close();
    expect(demo).toMatchObject({
      code: 1,
      output: expect.stringContaining(`Port ${port} of 127.0.0.1 is taken`),
    });
    expect(bench).toMatchObject({ code: 1, output: expect.stringContaining(`Port ${port} is taken`) });
  });

  test('a data directory that cannot be written ends the start with a clear word', async () => {
    const { code, output } = await runToEnd(await application(), {
      NODE_ENV: 'production',
      VERIDON_DATA_DIR: '/sys/veridon',
    });
    expect(code).toBe(1);
    expect(output).toContain('cannot write in its data directory /sys/veridon');
    expect(output).toContain('VERIDON_DATA_DIR');
  });

  test('a directory that another Veridon uses is left alone', async () => {
    const { code, output } = await runToEnd(await application(), {
      NODE_ENV: 'production',
      VERIDON_DATA_DIR: `${world.folder}/data`,
    });
    expect(code).toBe(1);
    expect(output).toMatch(/Another Veridon \(process \d+\) is using the data directory/);
  });
});

test('on a disk that is nearly full an edit is refused beforehand, nothing is changed, and reading goes on', async () => {
  // The reserve is set just under what is free; a large file then takes the room away, and gives it back.
  const { bavail, bsize } = statfsSync(world.folder);
  const other = await makeWorld({
    env: { VERIDON_RESERVE_MB: String(Math.floor((bavail * bsize) / 1_000_000) - 1000) },
  });
  const ballast = join(other.folder, 'ballast');
  const edit = (name: string) =>
    other.api<Problem>(`/api/plans/${PLAN}/edits`, 'POST', {
      base: 1,
      edit: { name: 'describe', set: { name } },
    });
  try {
    execFileSync('fallocate', ['-l', '3G', ballast]);
    expect((await edit('Too much')).body).toMatchObject({
      status: 507,
      detail: expect.stringMatching(/nearly full .* Nothing was changed/),
    });
    expect((await other.api<Plan>(`/api/plans/${PLAN}`)).body).toMatchObject({
      revision: 1,
      plan: { name: 'Ketterby weekend' },
    });
    // Started again it reads, says so on each page, and goes on by itself once there is room.
    await other.kill('SIGTERM');
    await other.start();
    expect((await other.api<Plan>(`/api/plans/${PLAN}`)).body).toMatchObject({ revision: 1 });
    expect((await other.api('/api/health')).body).toMatchObject({
      status: 'ok',
      readOnly: expect.stringMatching(/nearly full/),
    });
    expect(await (await fetch(other.url)).text()).toMatch(/Read-only\. .*nearly full/s);
    expect((await edit('Too much again')).status).toBe(507);
    rmSync(ballast);
    expect((await other.api('/api/health')).body).toMatchObject({ readOnly: null });
    expect((await edit('Room again')).status).toBe(200);
  } finally {
    await other.close();
  }
});
