import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { check } from '../src/core/check';
import { bytesOf } from '../src/core/image';
import { fit } from '../src/core/fit';
import { cableOf } from '../src/core/models';
import { ternP2 } from '../src/core/models/tern-p2';
import {
  channelDefaults,
  newPlan,
  type Channel,
  type ChannelId,
  type Plan,
  type PlanId,
} from '../src/core/plan';
import { runLink } from '../src/server/transport';
import { startSim } from '../src/sim/server';

/** Fit and check of a full plan, and write throughput over a real port, as medians. */

const median = (values: number[]) => [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;

const channels = Array.from({ length: 150 }, (_, slot): Channel => ({
  id: `ch_full${String(slot).padStart(4, '0')}` as ChannelId,
  list: 0,
  slot,
  ...channelDefaults(145_600_000 + slot * 12_500),
  name: `Ketterby Ridge ${slot}`,
  tx: 145_000_000 + slot * 12_500,
  power: 2000,
}));
const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const plan: Plan = {
  ...newPlan('pl_measure' as PlanId, { name: 'Full', modelId: 'tern-p2', owner }),
  channels,
};

const times: number[] = [];
for (let run = 0; run < 60; run++) {
  const began = performance.now();
  check(plan, ternP2, fit(plan, ternP2));
  times.push(performance.now() - began);
}
console.log(
  `Fit and check of a full plan (150 channels): ${median(times).toFixed(2)} ms (60 runs, the first ${times[0]!.toFixed(1)} ms)`,
);

const SPEED = 2;

async function throughput(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'veridon-line-'));
  const sim = await startSim({ port: 0, folder, speed: SPEED });
  const post = (body: object) =>
    fetch(`http://127.0.0.1:${sim.port}/bench/radios/tern-1`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${sim.key}` },
      body: JSON.stringify(body),
    });
  const look = (await (await post({ plugged: true })).json()) as { port: { tcp: number } };
  const shares: number[] = [];
  for (let run = 0; run < 3; run++) {
    const read = await runLink(look.port.tcp, ternP2, { kind: 'read' });
    if (read.kind !== 'finished') throw new Error(read.reason);
    let began = 0;
    let ended = 0;
    const write = await runLink(
      look.port.tcp,
      ternP2,
      { kind: 'write', image: read.image!, serial: 'LK204417' },
      (event) => {
        if (event.kind === 'identified') began = performance.now();
        if (event.kind === 'finished') ended = performance.now();
      },
    );
    if (write.kind !== 'finished') throw new Error(write.reason);
    const lineRate = (cableOf(ternP2).lineRate / 10) * SPEED;
    shares.push(bytesOf(ternP2) / ((ended - began) / 1000) / lineRate);
  }
  console.log(
    `Write throughput: ${(median(shares) * 100).toFixed(1)}% of the line rate in bytes of the image (3 runs, line ${SPEED} times as fast as real; frames take 2.7% of it)`,
  );
  sim.close();
  rmSync(folder, { recursive: true, force: true });
}

void throughput().then(() => process.exit(0));
