import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { check } from '../src/core/check';
import { fit } from '../src/core/fit';
import { BLOCK_OVERHEAD, FRAME_OVERHEAD, type LinkEvent } from '../src/core/link';
import { cableOf, type Model } from '../src/core/models';
import { curlewX1 } from '../src/core/models/curlew-x1';
import { petrelHF9 } from '../src/core/models/petrel-hf9';
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

/** Bytes of a frame that are not of the image: docs/stream-link.md, docs/block-link.md. */
const OVERHEAD = { stream: FRAME_OVERHEAD, block: BLOCK_OVERHEAD, live: BLOCK_OVERHEAD };

/** How much of what frames leave of a line reading and writing use, over a real port; what a radio takes to go to another module is not the line's. */
async function throughput(unit: string, model: Model): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'veridon-line-'));
  const sim = await startSim({ port: 0, folder, speed: SPEED });
  const headers = { Authorization: `Bearer ${sim.key}` };
  const post = (body: object) =>
    fetch(`http://127.0.0.1:${sim.port}/bench/radios/${unit}`, {
      method: 'POST',
      headers,
      body: JSON.stringify(body),
    });
  interface Seen {
    serial: string;
    port: { tcp: number } | null;
  }
  const look = async () => {
    const { radios } = (await (
      await fetch(`http://127.0.0.1:${sim.port}/bench/radios`, { headers })
    ).json()) as { radios: (Seen & { id: string })[] };
    return radios.find(({ id }) => id === unit)!;
  };
  const { serial } = (await (await post({ plugged: true })).json()) as Seen;
  const again = async () => {
    for (;;) {
      const { port } = await look();
      if (port) return port.tcp;
      await new Promise((done) => setTimeout(done, 10));
    }
  };
  const link = cableOf(model);
  const left = link.blockBytes / (link.blockBytes + OVERHEAD[link.kind]);
  const shares = { read: [] as number[], write: [] as number[] };
  let image = new Uint8Array();
  for (let run = 0; run < 3; run++)
    for (const kind of ['read', 'write'] as const) {
      // The line's time: from the first to the last of each stretch, and not while it is away to the next module.
      let [since, lined, before] = [0, 0, 0];
      const hear = ({ kind: what, ...event }: LinkEvent) => {
        const now = performance.now();
        if (what === 'identified') since = now;
        if (what === 'progress' && 'bytes' in event) {
          lined += now - since;
          since = now;
          before = event.bytes;
        }
      };
      const end = await runLink(
        { place: await again(), again },
        model,
        kind === 'read' ? { kind } : { kind, image, serial },
        hear,
      );
      if (end.kind !== 'finished') throw new Error(end.reason);
      if (end.image) image = new Uint8Array(end.image);
      const rate = (link.lineRate / 10) * SPEED;
      shares[kind].push(before / (lined / 1000) / rate / left);
    }
  const said = (values: number[]) => `${(median(values) * 100).toFixed(1)}%`;
  console.log(
    `The line of a ${model.name} (${link.kind}): read ${said(shares.read)}, written ${said(shares.write)} of what frames leave of it (3 runs, ${SPEED} times as fast as real; frames take ${((1 - left) * 100).toFixed(1)}%)`,
  );
  sim.close();
  rmSync(folder, { recursive: true, force: true });
}

void throughput('tern-1', ternP2)
  .then(() => throughput('curlew-1', curlewX1))
  .then(() => throughput('petrel-1', petrelHF9))
  .then(() => process.exit(0));
