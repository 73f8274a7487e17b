import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import { makeWorld, PLAN, until, type World } from './world';

/** The thread of the embedded database, in the application as it is built. */

let world: World;
const folder = mkdtempSync(join(tmpdir(), 'veridon-break-'));
const file = join(folder, 'now');
beforeAll(async () => {
  const options = `${process.env.NODE_OPTIONS ?? ''} --import ${pathToFileURL(resolve('e2e/break-thread.mjs')).href}`;
  world = await makeWorld({ env: { NODE_OPTIONS: options, VERIDON_BREAK_FILE: file } });
});
afterAll(async () => {
  await world?.close();
  rmSync(folder, { recursive: true, force: true });
});

const plan = () =>
  world.api<{ revision: number; plan: { channels: { id: string; name: string }[] } }>(`/api/plans/${PLAN}`);

test('where it breaks down another takes its place, each time, and has what was answered', async () => {
  const { body } = await plan();
  const { id } = body.plan.channels[0]!;
  for (const name of ['Before the first', 'Before the second', 'Before the third']) {
    const { revision } = (await plan()).body;
    const edit = { name: 'change', changes: [{ id, set: { name } }] };
    expect((await world.api(`/api/plans/${PLAN}/edits`, 'POST', { base: revision, edit })).status).toBe(200);
    writeFileSync(file, '');
    await until('the thread to break down', () => Promise.resolve(!existsSync(file)));
    await until('another to answer', async () => (await plan()).status === 200);
    expect((await plan()).body.plan.channels[0]!.name).toBe(name);
  }
});
