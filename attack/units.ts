import type { Bench, Copy, Job } from '../src/core/bench';
import { decodeImage } from '../src/core/image';
import { kestrelC1 } from '../src/core/models/kestrel-c1';
import type { ChannelId, Edit, Plan } from '../src/core/plan';
import { pick, seeded } from '../src/sim/random';
import { until as waitFor, type World } from '../e2e/world';
import { ask, post, Watch, type Report } from './figures';

/** The two Kestrels of the bench. */
const UNITS = [
  { at: 'kestrel-1', serial: 'CV110073' },
  { at: 'kestrel-2', serial: 'CV110091' },
];
const GROUP = 'tg_attackgroup1';
const idOf = (slot: number) => `ch_attackunit${slot}` as ChannelId;

/** What an attack knows of a unit, by what was done with it and by that alone. */
interface Known {
  radioId: string;
  at: string;
  serial: string;
  /** The ID that its memory has; undefined before it was read. */
  ownId: unknown;
  /** The value that is its own, which its next write gets; undefined where none is set. */
  value: number | undefined;
  /** On what the channels of the plan sent when it was written to this unit, by id; null where something else is in it. */
  written: Map<string, number | null> | null;
  /** By the copies that were sealed of it: the ID in each. */
  copies: Map<string, unknown>;
  /** By the copies that were sealed after a write: on what the channels of the plan sent then. To restore one puts in what that write did. */
  writes: Map<string, Map<string, number | null>>;
}

/**
 * Two digital radios, one plan: written, restored from copies of their own and of each other, given values of their own, changed on their
 * keys, and what was changed there taken into the plan. No unit ever gets another's ID, and no merge makes a channel send that the plan
 * has made listen only.
 */
export async function mixUnits(
  world: World,
  { rounds, seed, until }: { rounds: number; seed: number; until: number },
): Promise<Report> {
  const random = seeded(seed);
  const watch = new Watch();
  const figures: Record<string, number> = { rounds: 0 };
  const count = (what: string) => (figures[what] = (figures[what] ?? 0) + 1);
  const run = async (body: object): Promise<Job> => {
    const started = await ask(`${world.url}/api/jobs`, post(body));
    if (started.status !== 202) {
      watch.note(`Refused: ${JSON.stringify(body)}: ${JSON.stringify(started.body)}`);
      return { state: 'failed', message: 'Refused', result: {} } as Job;
    }
    const { id } = started.body as Job;
    return waitFor(`the end of ${id}`, async () => {
      const now = (await ask(`${world.url}/api/jobs/${id}`)).body as Job;
      return now.state !== 'running' && now;
    });
  };
  const contentOf = async (copyId: string) => {
    const image = new Uint8Array(
      await (await fetch(`${world.url}/api/copies/${copyId}/image`)).arrayBuffer(),
    );
    const held = decodeImage(image, kestrelC1);
    if (!held.ok) throw new Error(held.reason);
    return held.value;
  };
  const owner = { callSign: 'Q7ABC', region: 'orrin', grade: 'full', strict: false };
  const made = await ask(
    `${world.url}/api/plans`,
    post({ name: `Units ${seed}`, modelId: kestrelC1.id, owner }),
  );
  const planId = (made.body as { plan: Plan }).plan.id;
  const planNow = async () =>
    (await ask(`${world.url}/api/plans/${planId}`)).body as { plan: Plan; revision: number };
  const edit = async (what: Edit | object) => {
    const { revision } = await planNow();
    const answer = await ask(`${world.url}/api/plans/${planId}/edits`, post({ base: revision, edit: what }));
    watch.take('POST /api/plans/{id}/edits', answer);
    if (answer.status !== 200) watch.note(`An edit was refused: ${JSON.stringify(answer.body)}`);
  };
  await edit({
    ...{ name: 'put', kind: 'talkgroup', before: null },
    records: [{ id: GROUP, name: 'Isles', number: 100, call: 'group' }],
  });
  await edit({
    name: 'place',
    channels: [1, 2, 3, 4].map((slot) => ({
      ...{ id: idOf(slot), name: `Digital ${slot}`, fitted: {}, note: '', source: null },
      ...{ rx: 439_400_000 + slot * 12_500, tx: 431_800_000 + slot * 12_500, txFixed: true },
      access: { kind: 'dmr', colourCode: 1, timeSlot: 1 },
      ...{ mode: 'DMR', power: 4000, scan: true, alwaysOn: false, talkgroup: GROUP },
    })),
    ...{ placement: 'next-free', at: 1, slots: [1, 2, 3, 4], range: { first: 1, count: 100 } },
  });

  const known: Known[] = [];
  for (const { at, serial } of UNITS) {
    await world.atBench(`/bench/radios/${at}/faults`, { kind: 'none' });
    await world.atBench(`/bench/radios/${at}`, { plugged: true });
    const radioId = await waitFor(serial, async () => {
      const { radios } = (await ask(`${world.url}/api/radios`)).body as Bench;
      return radios.find((radio) => radio.serial === serial && radio.port !== null)?.id;
    });
    const copyId = (await run({ kind: 'read', radioId })).result.copyId!;
    const { radioId: ownId } = (await contentOf(copyId)).settings;
    known.push({
      ...{ radioId, at, serial, ownId, value: undefined, written: null },
      copies: new Map([[copyId, ownId]]),
      writes: new Map(),
    });
  }

  /** The newest content of a unit, after its ID was compared with the one that it should have. */
  const check = async (unit: Known, where: string) => {
    const { copies } = (await ask(`${world.url}/api/radios/${unit.radioId}/copies`)).body as {
      copies: Copy[];
    };
    const content = await contentOf(copies[0]!.id);
    if (content.settings.radioId !== unit.ownId)
      watch.note(
        `${where}: ${unit.serial} has the ID ${String(content.settings.radioId)}, not ${String(unit.ownId)}`,
      );
    unit.copies.set(copies[0]!.id, unit.ownId);
    return content;
  };

  let turns = 0;
  for (let n = 0; n < rounds && Date.now() < until; n++) {
    count('rounds');
    const unit = pick(random, known);
    const other = known.find((one) => one !== unit)!;
    const what = pick(random, [
      ...['write', 'write', 'restore', 'restore of the other', 'value', 'plan’s value'],
      ...['listen only', 'listen only', 'keys', 'keys', 'keys', 'take'],
    ] as const);
    const where = `Round ${n}, ${what} (seed ${seed})`;
    count(what);
    if (what === 'value') {
      unit.value = random() < 0.8 ? 1_160_000 + n * 10 + known.indexOf(unit) : undefined;
      const body = JSON.stringify({ own: unit.value === undefined ? {} : { radioId: unit.value } });
      const set = await ask(`${world.url}/api/radios/${unit.radioId}/own`, post(body));
      if (set.status !== 200) watch.note(`${where}: ${JSON.stringify(set.body)}`);
    } else if (what === 'plan’s value') {
      const set = random() < 0.5 ? { radioId: 5_000_000 + n } : {};
      await edit({ name: 'describe', set: { settings: { [kestrelC1.id]: set } } });
    } else if (what === 'listen only') {
      const { plan } = await planNow();
      const slot = pick(random, [1, 2, 3, 4]);
      if (!plan.channels.some(({ id }) => id === idOf(slot))) continue;
      await edit({ name: 'change', changes: [{ id: idOf(slot), set: { tx: null } }] });
    } else if (what === 'write') {
      const { plan, revision } = await planNow();
      const job = await run({ kind: 'write', radioId: unit.radioId, planId, planRevision: revision });
      if (job.state !== 'done') watch.note(`${where}: ${job.message}`);
      unit.ownId = unit.value ?? plan.settings[kestrelC1.id]?.radioId ?? unit.ownId;
      unit.written = new Map(plan.channels.map(({ id, tx }) => [id, tx]));
      const { writtenCopyId } = job.result;
      if (writtenCopyId !== undefined) unit.writes.set(writtenCopyId, unit.written);
      const { channels } = await check(unit, where);
      for (const { slot, tx } of plan.channels)
        if (tx === null && channels.find((one) => one.slot === slot)?.tx !== null)
          watch.note(`${where}: slot ${slot} sends, and the plan only listens`);
    } else if (what === 'restore' || what === 'restore of the other') {
      const from = what === 'restore' ? unit : other;
      const [copyId, ownId] = pick(random, [...from.copies]);
      const ofAnother = from === other && { ofAnother: true };
      const job = await run({ kind: 'restore', radioId: unit.radioId, copyId, ...ofAnother });
      if (job.state !== 'done') watch.note(`${where}: ${job.message}`);
      if (from === unit) unit.ownId = ownId;
      unit.written = (from === unit && unit.writes.get(copyId)) || null;
      await check(unit, where);
    } else if (what === 'keys') {
      const slot = pick(random, [1, 2, 3, 4, 5]);
      const key = pick(random, [
        { slot, name: `Key ${n}` },
        { slot, rx: 434_000_000 + 12_500 * ++turns },
        { slot, clear: true },
      ]);
      await world.atBench(`/bench/radios/${unit.at}`, { key });
    }
    if (what === 'take' || (what === 'keys' && random() < 0.7)) {
      await run({ kind: 'read', radioId: unit.radioId });
      await check(unit, where);
      const done = (await ask(`${world.url}/api/radios/${unit.radioId}/by-hand?plan=${planId}`)).body as {
        since: object | null;
        all: Edit | null;
      };
      if (done.since !== null && unit.written === null)
        watch.note(`${where}: compared with a plan that was not put in last`);
      if (done.all === null) continue;
      count('taken');
      const before = new Map((await planNow()).plan.channels.map(({ id, tx }) => [id, tx]));
      await edit(done.all);
      // The plan made it listen only after it was written; whatever was done on the keys since, that stays.
      for (const { id, slot, tx } of (await planNow()).plan.channels)
        if (tx !== null && before.get(id) === null && typeof unit.written?.get(id) === 'number')
          watch.note(`${where}: a merge made slot ${slot} send again`);
    }
  }
  for (const { at } of UNITS) await world.atBench(`/bench/radios/${at}`, { plugged: false });
  return { attack: 'units', figures, broken: watch.broken };
}
