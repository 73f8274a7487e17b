import type { ServerResponse } from 'node:http';
import { PLAN, type World } from '../e2e/world';
import { ask, limits, memoryOf, post, quantile, Watch, type Report } from './figures';

/** Rolls of people that have no end, or too many rows, while somebody types. */

/** Rows that are made at once. */
const AT_ONCE = 5000;
/** Most that the server's memory may rise while a roll comes in, MB. */
const MOST_MEMORY = 700;

const row = (n: number) =>
  `{"id":${1_000_000 + n},"call":"Q7${n % 1000}","first":"Wenna","last":"Daskow","town":"Ketterby","island":"Brannoch"}`;

/** Pours text as fast as the other side takes it; `next` gives none where all is said. */
function pour(response: ServerResponse, next: () => string | undefined): void {
  const go = () => {
    while (!response.destroyed) {
      const text = next();
      if (text === undefined) return void response.end();
      if (!response.write(text)) return;
    }
  };
  response.on('drain', go);
  go();
}

/** A roll of so many people, whose numbers begin again after `numbers`. */
const rollOf = (people: number, numbers: number) => (response: ServerResponse) => {
  let n = 0;
  response.write('{"roll":"Ident Roll","made":"2026-11-30","people":[');
  pour(response, () => {
    if (n > people) return undefined;
    if (n === people) return n++ ? ']}' : undefined;
    const count = Math.min(AT_ONCE, people - n);
    const text = Array.from(
      { length: count },
      (_, at) => `${n + at === 0 ? '' : ','}${row((n + at) % numbers)}`,
    ).join('');
    n += count;
    return text;
  });
};

/** The ways of a roll to be too much, and how loading it must end. */
export const ROLL_ACTS: Record<
  string,
  { act: (response: ServerResponse) => void; state: 'done' | 'failed'; said: RegExp }
> = {
  'a roll without end': { act: rollOf(Infinity, 200_000), state: 'failed', said: /longer than 400 MB/ },
  'one row without end': {
    act: (response) => {
      response.write('{"people":[{"call":"');
      pour(response, () => 'x'.repeat(65_536));
    },
    state: 'failed',
    said: /goes on for more than 1 MB/,
  },
  'three million people': {
    act: rollOf(3_000_000, 3_000_000),
    state: 'done',
    said: /^2,000,000 people are loaded\..* 1,000,000 rows were odd/,
  },
};

interface Seen {
  roll: { people: number; source: string } | null;
  load: { state: string; message: string; people: number } | null;
}

export async function pourRolls(
  world: World,
  behave: (how: string | undefined) => void,
  acts: readonly string[] = Object.keys(ROLL_ACTS),
): Promise<Report> {
  const watch = new Watch();
  const answers: number[] = [];
  const seen = async () => (await ask(`${world.url}/api/people/roll`)).body as Seen;
  await ask(`${world.url}/api/plans/${PLAN}/recover`, post(undefined));
  let over = false;
  const typing = async () => {
    const path = `${world.url}/api/plans/${PLAN}`;
    for (let n = 0; !over; n++) {
      const look = await ask(path);
      const { revision } = look.body as { revision: number };
      const edit = { base: revision, edit: { name: 'describe', set: { name: `Typed ${n}` } } };
      const answer = await ask(`${path}/edits`, post(edit, { 'Idempotency-Key': `roll.${n}` }));
      if (answer.status !== 200) watch.note(`An edit was answered with ${answer.status}`);
      answers.push(look.ms, answer.ms);
      await new Promise((goOn) => setTimeout(goOn, 50));
    }
  };
  const figures: Record<string, string> = {};
  const before = memoryOf(world.pid());
  let peak = before;
  const typed = typing();
  for (const name of acts) {
    const { state, said } = ROLL_ACTS[name]!;
    const had = (await seen()).roll;
    const began = performance.now();
    behave(name);
    watch.take(
      `POST /api/people/roll (${name})`,
      await ask(`${world.url}/api/people/roll`, { method: 'POST' }),
    );
    let now = await seen();
    while (now.load?.state === 'loading') {
      await new Promise((goOn) => setTimeout(goOn, 200));
      peak = Math.max(peak, memoryOf(world.pid()));
      now = await seen();
    }
    behave(undefined);
    figures[`${name}, s`] = ((performance.now() - began) / 1000).toFixed(1);
    const { load, roll } = now;
    if (load?.state !== state || !said.test(load.message))
      watch.note(`${name} ended as ${load?.state}: ${load?.message.slice(0, 200)}`);
    if (state === 'failed' && JSON.stringify(roll) !== JSON.stringify(had))
      watch.note(`After ${name} the roll in use is another: ${JSON.stringify(roll)}`);
  }
  over = true;
  await typed;
  const [usual, worst] = [quantile(answers, 0.95), quantile(answers, 1)];
  if (usual > limits.editMs) watch.note(`95 of 100 looks and edits took up to ${Math.round(usual)} ms`);
  if (worst > limits.editWorstMs) watch.note(`One look or edit took ${Math.round(worst)} ms`);
  if (peak - before > MOST_MEMORY)
    watch.note(`Memory rose from ${Math.round(before)} to ${Math.round(peak)} MB`);
  return {
    attack: 'rolls that are too much',
    figures: {
      ...figures,
      'looks and edits beside them': answers.length,
      'looks and edits, 95th and longest, ms': `${Math.round(usual)}, ${Math.round(worst)}`,
      'memory before and at most, MB': `${Math.round(before)}, ${Math.round(peak)}`,
    },
    broken: watch.broken,
  };
}
