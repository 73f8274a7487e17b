import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { makeWorld } from '../e2e/world';
import { Disk } from '../attack/disk';
import { ask, post, quantile } from '../attack/figures';
import { record } from '../attack/power-cuts';
import { channelDefaults } from '../src/core/plan';
import { openFolder } from '../src/db';
import { seeded } from '../src/sim/random';

/** What it costs that an edit is on disk, and how long it takes to be back after a kill and after a power cut. */

const say = (what: string, values: number[], share: number, note: string) =>
  console.log(`${what}: ${quantile(values, share).toFixed(1)} ms (${values.length} runs; ${note})`);

async function measure(): Promise<void> {
  const world = await makeWorld();
  const made = await ask(`${world.url}/api/plans`, post({ name: 'Twenty', modelId: 'tern-p2' }));
  const path = `${world.url}/api/plans/${(made.body as { plan: { id: string } }).plan.id}/edits`;
  const channels = Array.from({ length: 20 }, (_, n) => ({
    id: `ch_twenty${String(n).padStart(3, '0')}`,
    ...channelDefaults(145_500_000 + n * 12_500),
    name: `Station ${n}`,
  }));
  const range = { first: 0, count: 150 };
  const place = { name: 'place', channels, placement: 'next-free', at: 0, range };
  let { revision } = (await ask(path, post({ base: 1, edit: place }))).body as { revision: number };
  const edits: number[] = [];
  for (let run = 0; run < 220; run++) {
    const edit = {
      name: 'change',
      changes: channels.map(({ id }) => ({ id, set: { scan: run % 2 === 0 } })),
    };
    const answer = await ask(path, post({ base: revision, edit }, { 'Idempotency-Key': `measure.${run}` }));
    if (answer.status !== 200) throw new Error(JSON.stringify(answer.body));
    ({ revision } = answer.body as { revision: number });
    // The first ones find the server cold.
    if (run >= 20) edits.push(answer.ms);
  }
  say(
    'One edit of 20 channels, on disk with a real fsync, 95th',
    edits,
    0.95,
    `median ${quantile(edits, 0.5).toFixed(1)} ms`,
  );

  const kills: number[] = [];
  for (let run = 0; run < 5; run++) {
    await world.kill('SIGKILL');
    const began = performance.now();
    await world.start();
    kills.push(performance.now() - began);
  }
  say('Restart after a kill, median', kills, 0.5, 'until the first answer; 220 edits in the log');
  await world.close();

  const folder = mkdtempSync(join(tmpdir(), 'veridon-durability-'));
  process.env.VERIDON_RESERVE_MB = '1';
  process.env.VERIDON_DATA_DIR = folder;
  const { happenings } = await record(join(folder, 'cuts'), 60, 4);
  const disk = new Disk(join(folder, 'cuts', 'db'), join(folder, 'cuts', 'before'));
  for (const happening of happenings) if ('step' in happening) disk.take(happening.step);
  const opens: number[] = [];
  for (let run = 0; run < 5; run++) {
    disk.cut(join(folder, 'cut'), seeded(run));
    const began = performance.now();
    const opened = await openFolder(join(folder, 'cut'));
    opens.push(performance.now() - began);
    await opened.close();
  }
  say(
    'Opening the database after a power cut, median',
    opens,
    0.5,
    'recovery of some 50 edits and the tables',
  );
  rmSync(folder, { recursive: true, force: true });
}

void measure().then(() => process.exit(0));
