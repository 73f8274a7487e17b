import { createHash } from 'node:crypto';
import { seeded } from '../src/sim/random';
import { PLAN, type World } from '../e2e/world';
import type { Plan } from '../src/core/plan';
import { logFaults } from './crowd';
import { ask, post, quantile, Watch, type Report } from './figures';

/** What the directories are called that come in while the process is killed. */
const NAMED = 'directory';
/** Stations of each. */
const STATIONS = 4000;
const directory = Buffer.from(
  `Name,Receive,Lat,Lon\n${Array.from({ length: STATIONS }, (_, n) => `R${n},145.6,52,-30`).join('\n')}`,
).toString('base64');

/** Channels of the plan that comes in meanwhile: more than go into one statement. */
const CHANNELS = 1200;
const table = Buffer.from(
  `Name,Receive\n${Array.from({ length: CHANNELS }, (_, n) => `R${n},145.6`).join('\n')}`,
).toString('base64');
const largePlan = (key: string) =>
  post(
    { name: `Large ${key}`, base64: table, modelId: 'osprey-d7', slots: 'next free' },
    { 'Idempotency-Key': key },
  );

/** Of a large plan that came in while the process was killed: sent again it is there once, with all of its channels. Removes it. */
async function largePlanFaults(world: World, key: string): Promise<string[]> {
  const answer = await ask(`${world.url}/api/import`, largePlan(key));
  if (answer.status !== 200) return [`${key}, sent again after the kill, was answered with ${answer.status}`];
  const { plan: id } = answer.body as { plan: string };
  const { plan } = (await ask(`${world.url}/api/plans/${id}`)).body as { plan: Plan };
  const { plans } = (await ask(`${world.url}/api/plans?count=200`)).body as { plans: { name: string }[] };
  const count = plans.filter(({ name }) => name === `Large ${key}`).length;
  await ask(`${world.url}/api/plans/${id}`, { method: 'DELETE' });
  const held = plan.channels.length + plan.leftOver.length;
  return held === CHANNELS && count === 1 ? [] : [`${key} is there ${count} times, with ${held} channels`];
}

/** A backup that was being made when the process was killed: sent again it is made once. */
async function backupFaults(world: World, key: string): Promise<string[]> {
  const send = () => ask(`${world.url}/api/backups`, post({}, { 'Idempotency-Key': key }));
  const answers = [await send(), await send()];
  const [one, two] = answers.map(({ status, body }) => ({ status, name: (body as { name: string }).name }));
  if (one!.status !== 201 || two!.status !== 201 || one!.name !== two!.name)
    return [`${key}, sent again after the kill, was answered with ${JSON.stringify([one, two])}`];
  // docs/backup.md: the name has the first 16 digits of the key's SHA-256.
  const mark = createHash('sha256').update(key).digest('hex').slice(0, 16);
  const { backups } = (await ask(`${world.url}/api/keeping`)).body as { backups: { name: string }[] };
  const count = backups.filter(({ name }) => name.includes(mark)).length;
  return count === 1 ? [] : [`The backup of ${key} was made ${count} times`];
}

/** Of each directory of one's own: it is here whole, or said to have broken off with nothing of it kept. Removes them. */
async function directoryFaults(world: World): Promise<string[]> {
  const { directories } = (await ask(`${world.url}/api/directories`)).body as {
    directories: { id: string; name: string; own: boolean; brokenOff: boolean; kept: number }[];
  };
  const faults: string[] = [];
  for (const { id, name, own, brokenOff, kept } of directories) {
    // Those of other attacks are left alone.
    if (!own || !name.startsWith(NAMED)) continue;
    if (kept !== (brokenOff ? 0 : STATIONS))
      faults.push(
        `A directory that ${brokenOff ? 'broke off' : 'is listed'} has ${kept} of ${STATIONS} stations`,
      );
    await ask(`${world.url}/api/directories/own/${id}`, { method: 'DELETE' });
  }
  return faults;
}

/** The process is killed while clients change a plan, and started again: what was answered is there. */
export async function kill(
  world: World,
  { kills, seed, until }: { kills: number; seed: number; until: number },
): Promise<Report> {
  const random = seeded(seed);
  const watch = new Watch();
  const answered: { planId: string; key: string; revision: number }[] = [];
  const restarts: number[] = [];
  let lost = 0;
  let again = 0;
  let n = 0;
  await ask(`${world.url}/api/plans/${PLAN}/recover`, post(undefined));
  for (let round = 0; round < kills && Date.now() < until; round++) {
    const { plan, revision } = (await ask(`${world.url}/api/plans/${PLAN}`)).body as {
      plan: Plan;
      revision: number;
    };
    let dead = false;
    /** Changes that were sent and not answered: after the restart they are sent again, and must be done once. */
    const open: { key: string; edit: object; base: number }[] = [];
    const client = async (who: number) => {
      for (let base = revision; !dead;) {
        const key = `kill${who}.${n++}`;
        // What was made up before may have left no channel at all: then the plan itself is called otherwise.
        const channel = plan.channels[Math.floor(random() * plan.channels.length)];
        const edit = channel
          ? {
              name: 'change',
              changes: [{ id: channel.id, set: { note: `${key} ${'x'.repeat(random() * 300)}` } }],
            }
          : { name: 'describe', set: { name: `Called by ${key}` } };
        const answer = await ask(
          `${world.url}/api/plans/${PLAN}/edits`,
          post({ base, edit }, { 'Idempotency-Key': key }),
        );
        if (answer.status === 200) {
          base = (answer.body as { revision: number }).revision;
          answered.push({ planId: PLAN, key, revision: base });
        } else if (answer.status === 409) {
          base = (answer.body as { revision: number }).revision;
        } else if (answer.status === 0) {
          open.push({ key, edit, base });
          lost++;
          return;
        } else return watch.note(`An edit was answered with ${answer.status}`);
      }
    };
    const bringIn = async (key: string) => {
      const body = { name: `${NAMED} ${key}`, base64: directory };
      await ask(`${world.url}/api/directories/own`, post(body, { 'Idempotency-Key': key }));
    };
    const large = `kill8.${n++}`;
    const backup = `kill7.${n++}`;
    const clients = [
      ...[1, 2, 3].map(client),
      ask(`${world.url}/api/backups`, post({}, { 'Idempotency-Key': backup })),
      bringIn(`kill9.${n++}`),
      ask(`${world.url}/api/import`, largePlan(large)),
    ];
    await new Promise((resolve) => setTimeout(resolve, 30 + random() * 400));
    await world.kill('SIGKILL');
    dead = true;
    await Promise.all(clients);
    const began = performance.now();
    await world.start();
    restarts.push(performance.now() - began);
    for (const fault of await directoryFaults(world)) watch.note(fault);
    for (const fault of await largePlanFaults(world, large)) watch.note(fault);
    for (const fault of await backupFaults(world, backup)) watch.note(fault);
    for (const { key, edit, base } of open) {
      const request = post({ base, edit }, { 'Idempotency-Key': key });
      const path = `${world.url}/api/plans/${PLAN}/edits`;
      const [first, second] = [await ask(path, request), await ask(path, request)];
      if (
        first.status !== second.status ||
        (first.status === 200 && JSON.stringify(first.body) !== JSON.stringify(second.body))
      )
        watch.note(
          `${key}, sent again after the kill, was answered with ${first.status} and ${second.status}`,
        );
      if (first.status === 200) again++;
    }
  }
  for (const fault of await logFaults(world, PLAN, answered)) watch.note(fault);
  return {
    attack: 'kills',
    figures: {
      kills: restarts.length,
      'edits answered': answered.length,
      'answers lost': lost,
      'done once when sent again': again,
      'restart, median and longest, ms': `${Math.round(quantile(restarts, 0.5))}, ${Math.round(quantile(restarts, 1))}`,
    },
    broken: watch.broken,
  };
}
