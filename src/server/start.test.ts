import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from '../db';
import { listPlans } from './plan-list';
import { setRemoved } from './plans';
import { start } from './start';

/** What is there when the server has come up. */

const folder = mkdtempSync(join(tmpdir(), 'veridon-start-'));
const SIGNALS = ['SIGTERM', 'SIGINT'] as const;
const heard = SIGNALS.map((signal) => process.listeners(signal));
beforeAll(() => {
  process.env.VERIDON_DATA_DIR = folder;
  process.env.VERIDON_RESERVE_MB = '1';
});
afterAll(async () => {
  delete process.env.VERIDON_DEMO;
  // What ends the server must not end whoever tests it.
  for (const [n, signal] of SIGNALS.entries())
    for (const listener of process.listeners(signal))
      if (!heard[n]!.includes(listener as never)) process.removeListener(signal, listener);
  await (await openDatabase()).close();
  rmSync(folder, { recursive: true, force: true });
});

test('the demo’s plans are put in where the demo is asked for, once, and never beside other plans', async () => {
  delete process.env.VERIDON_DEMO;
  await start();
  expect(await listPlans()).toEqual([]);
  process.env.VERIDON_DEMO = '1';
  await start();
  const [demo] = await listPlans();
  expect(demo).toMatchObject({ name: 'Ketterby weekend', revision: 1 });
  await start();
  expect(await listPlans()).toHaveLength(7);
  // somebody who removed it does not want it back with the next start
  for (const { id } of await listPlans()) await setRemoved(id, true);
  await start();
  expect(await listPlans()).toEqual([]);
});
