import { join } from 'node:path';
import { decodeImage } from '../src/core/image';
import { petrelHF9 } from '../src/core/models/petrel-hf9';
import { toRadio } from '../src/core/organise';
import type { Plan } from '../src/core/plan';
import { channel } from '../src/core/samples.test.kit';
import type { Live } from '../src/core/bench';
import { readStation } from '../src/sim/bench/station-file';
import { pick, seeded } from '../src/sim/random';
import { until as waitFor, type World } from '../e2e/world';
import { logFaults } from './crowd';
import { ask, limits, post, Watch, type Report } from './figures';

const UNIT = '/bench/radios/petrel-1';
const SERIAL = 'OR910031';

/** True where a radio that holds `image` would get nothing else of the plan. */
function hasAllOf(plan: Plan, image: Uint8Array): boolean {
  const wanted = toRadio(plan, image, [], petrelHF9);
  return wanted.ok && wanted.value.every((byte, at) => byte === image[at]);
}

/**
 * A radio and a plan that follow each other, while somebody types, somebody presses keys, the cable is pulled, bits flip, the radio is
 * switched off and Veridon is killed. In the end both are the same to the byte, but for what somebody has to decide, and no answered
 * edit is lost.
 */
export async function follow(
  world: World,
  { rounds, seed, until }: { rounds: number; seed: number; until: number },
): Promise<Report> {
  const random = seeded(seed);
  const watch = new Watch();
  const done: Record<string, number> = { rounds: 0 };
  const count = (what: string) => (done[what] = (done[what] ?? 0) + 1);
  const owner = { callSign: 'Q7ABC', region: 'orrin', grade: 'full', strict: false };
  const made = await ask(
    `${world.url}/api/plans`,
    post({ name: `Followed ${seed}`, modelId: petrelHF9.id, owner }),
  );
  const planId = (made.body as { plan: Plan }).plan.id;
  const planNow = async () =>
    (await ask(`${world.url}/api/plans/${planId}`)).body as { plan: Plan; revision: number };
  const answered: { planId: string; key: string; revision: number }[] = [];
  let number = 0;
  const edit = async (what: object) => {
    const key = `follow.${seed * 1000 + number++}`;
    for (let tries = 0; tries < 8; tries++) {
      const { revision } = await planNow();
      const answer = await ask(
        `${world.url}/api/plans/${planId}/edits`,
        post({ base: revision, edit: what }, { 'Idempotency-Key': key }),
      );
      watch.take('POST /api/plans/{id}/edits', answer);
      if (answer.status === 200) {
        answered.push({ planId, key, revision: (answer.body as { revision: number }).revision });
        return count('typed');
      }
      if (answer.status !== 409)
        return watch.note(
          `${JSON.stringify(what).slice(0, 200)}: ${answer.status} ${JSON.stringify(answer.body).slice(0, 200)}`,
        );
    }
  };
  const live = async () =>
    ((await ask(`${world.url}/api/live`)).body as { lives: Live[] }).lives.find(
      ({ called }) => called === SERIAL,
    );
  /** The memory of the radio as it lies on the bench. */
  const inRadio = () => readStation((kind) => join(world.folder, 'bench', `${SERIAL}.${kind}`))!.memory;
  const mend = async () => {
    await world.atBench(`${UNIT}/faults`, { kind: 'none' });
    await world.atBench(UNIT, { plugged: true, on: true });
  };
  /** Waits until nothing is on its way any more, and decides what is to be decided. */
  const together = async (): Promise<boolean> => {
    await mend();
    try {
      const outcome = await waitFor(
        'both',
        async () => {
          await world.atBench(UNIT, { plugged: true, on: true });
          const one = await live();
          if (!one) return 'nothing follows';
          if (one.state === 'ended') return `it ended: ${one.reason}`;
          const [apart] = one.apart;
          if (one.state === 'live' && apart) {
            const { list, slot } = apart;
            count('decided');
            await ask(
              `${world.url}/api/live/${one.radioId}/decide`,
              post({ list, slot, take: pick(random, ['radio', 'plan']) }),
            );
            return false;
          }
          const { plan, revision } = await planNow();
          // What was pressed a moment ago may still be on its way, and so may a cable that was pulled.
          return one.state === 'live' && one.revision === revision && hasAllOf(plan, inRadio()) && 'live';
        },
        { hangMs: limits.togetherMs },
      );
      // No second look at the session: a cable that was pulled a moment ago may still be on its way, and is followed again by itself.
      if (outcome !== 'live') watch.note(`Round ${done.rounds}: nothing follows any more: ${outcome}`);
      return outcome === 'live';
    } catch (error) {
      const [one, plan] = [await live(), await planNow()];
      watch.note(
        `Round ${done.rounds}: ${(error as Error).message}: ${one?.state ?? 'no session'} at ${one?.revision}, the plan at ${plan.revision}, ${one?.apart.length} apart, ${JSON.stringify(one?.said.slice(-4))}`,
      );
      return false;
    }
  };

  await mend();
  const radioId = await world.radioId(SERIAL);
  const readOut = await ask(`${world.url}/api/jobs`, post({ kind: 'read', radioId }));
  await waitFor('the read', async () => {
    const job = (await ask(`${world.url}/api/jobs/${(readOut.body as { id: string }).id}`)).body as {
      state: string;
    };
    return job.state !== 'running';
  });
  const begin = async () => {
    const { revision } = await planNow();
    return ask(`${world.url}/api/live`, post({ radioId, planId, planRevision: revision }));
  };
  const begun = await begin();
  if (begun.status !== 201) watch.note(`It did not begin: ${begun.status} ${JSON.stringify(begun.body)}`);

  const typed = async () => {
    const { plan } = await planNow();
    const slot = 1 + Math.floor(random() * 12);
    const there = plan.channels.find((one) => one.slot === slot);
    if (!there) {
      const { slot: _, list: _list, ...fields } = channel(slot, 145_300_000 + 12_500 * (number % 40));
      const placed = { ...fields, id: `ch_follow${seed}n${number}`, name: `Typed ${number}` };
      return edit({
        name: 'place',
        channels: [placed],
        placement: 'overwrite',
        at: slot,
        range: { first: 1, count: 120 },
      });
    }
    return random() < 0.2
      ? edit({ name: 'remove', kind: 'channel', ids: [there.id] })
      : edit({ name: 'change', changes: [{ id: there.id, set: { name: `Typed ${number}` } }] });
  };
  const pressed = async () => {
    count('pressed');
    const slot = 1 + Math.floor(random() * 12);
    await world.atBench(
      UNIT,
      random() < 0.2
        ? { slot }
        : { key: { slot, name: `KEY ${number++}`, rx: 145_300_000 + 12_500 * Math.floor(random() * 40) } },
    );
  };
  const mishaps = [
    async () => world.atBench(UNIT, { plugged: false }),
    async () => world.atBench(UNIT, { on: false }),
    async () =>
      world.atBench(`${UNIT}/faults`, {
        kind: 'pull',
        towards: pick(random, ['radio', 'host']),
        atByte: 1 + Math.floor(random() * 200),
      }),
    async () => world.atBench(`${UNIT}/faults`, { kind: 'flip', atByte: 1 + Math.floor(random() * 200) }),
    async () => world.atBench(`${UNIT}/faults`, { kind: pick(random, ['silent', 'rubbish']) }),
    async () => {
      count('kills');
      await world.kill('SIGKILL');
      await world.start();
    },
  ];

  for (let n = 0; n < rounds && Date.now() < until; n++) {
    count('rounds');
    const doings = Array.from({ length: 1 + Math.floor(random() * 4) }, () =>
      random() < 0.5 ? typed : pressed,
    );
    if (random() < 0.7) {
      count('mishaps');
      doings.splice(
        Math.floor(random() * (doings.length + 1)),
        0,
        async () => void (await pick(random, mishaps)()),
      );
    }
    for (const doing of doings) {
      // Some at once, some when the one before has come through.
      if (random() < 0.5) await new Promise((resolve) => setTimeout(resolve, random() * 150));
      await doing();
    }
    if (!(await together())) {
      count('begun anew');
      await ask(`${world.url}/api/live/${radioId}`, { method: 'DELETE' });
      await mend();
      const again = await begin();
      if (again.status !== 201) {
        watch.note(`It did not begin anew: ${again.status} ${JSON.stringify(again.body)}`);
        break;
      }
    }
  }
  await together();
  await ask(`${world.url}/api/live/${radioId}`, { method: 'DELETE' });
  const { plan } = await planNow();
  const last = (await ask(`${world.url}/api/jobs`, post({ kind: 'read', radioId }))).body as { id: string };
  const job = await waitFor('the last read', async () => {
    const now = (await ask(`${world.url}/api/jobs/${last.id}`)).body as {
      state: string;
      result: { copyId?: string };
    };
    return now.state !== 'running' && now;
  });
  const image = new Uint8Array(
    await (await fetch(`${world.url}/api/copies/${job.result.copyId}/image`)).arrayBuffer(),
  );
  const stray = plan.channels.filter(({ slot }) => slot > 12);
  if (stray.length > 0)
    watch.note(`Channels stand where nobody put any: ${JSON.stringify(stray).slice(0, 600)}`);
  if (!decodeImage(image, petrelHF9).ok) watch.note('In the end its content cannot be read');
  else if (!hasAllOf(plan, image))
    watch.note('In the end the radio holds something else than the plan wants in it');
  for (const fault of await logFaults(world, planId, answered)) watch.note(fault);
  return {
    attack: 'following',
    figures: { ...done, 'channels at the end': plan.channels.length },
    broken: watch.broken,
  };
}
