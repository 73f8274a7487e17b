import { isDeepStrictEqual } from 'node:util';
import * as fc from '../src/core/property.test.kit';
import { applyEdit, type Edit, type Plan } from '../src/core/plan';
import { anyEditOn } from '../src/core/plan/edit.test.kit';
import { seeded } from '../src/sim/random';
import { PLAN, type World } from '../e2e/world';
import { ask, limits, post, quantile, Watch, type Report } from './figures';

/** Many at once: some type one change after the other, some send sixty at a time without waiting. All on the same few plans. */

interface Answered {
  planId: string;
  key: string;
  revision: number;
}

/** The plan as its log makes it, from an empty one: every edit of the log run again, in order. */
export async function logFaults(
  world: World,
  planId: string,
  answered: readonly Answered[],
): Promise<string[]> {
  const faults: string[] = [];
  const kept = (await ask(`${world.url}/api/plans/${planId}`)).body as { plan: Plan; revision: number };
  if (!kept.plan) return [`${planId} cannot be read: ${JSON.stringify(kept).slice(0, 200)}`];
  const log: { revision: number; edit: Edit }[] = [];
  for (let next: number | null = kept.revision + 1; next !== null;) {
    const answer = await ask(`${world.url}/api/plans/${planId}/edits?limit=500&before=${next}`);
    const page = answer.body as { edits: typeof log; next: number | null };
    if (!page.edits) return [`The log of ${planId} cannot be read: ${answer.status}`];
    log.push(...page.edits);
    next = page.next;
  }
  const revisions = log.map(({ revision }) => revision);
  for (const { revision } of answered)
    if (!revisions.includes(revision))
      faults.push(`Revision ${revision} of ${planId} was answered and is gone`);
  if (revisions.some((revision, index) => revision !== kept.revision - index))
    faults.push(`The log of ${planId} has gaps`);
  const begun = await ask(`${world.url}/api/plans/${planId}/duplicate?revision=1`, post(undefined));
  // The duplicate has all of the first revision but the name and the id.
  const first = (begun.body as { plan: Plan }).plan;
  let plan = { ...first, id: kept.plan.id, name: kept.plan.name };
  for (const { revision, edit } of log.reverse()) {
    const result = applyEdit(plan, edit);
    if (!result.ok)
      return [...faults, `Revision ${revision} of ${planId} cannot be run again: ${result.reason}`];
    plan = result.value;
  }
  if (!isDeepStrictEqual({ ...plan, name: kept.plan.name }, kept.plan))
    faults.push(`${planId} is not what its log makes of it`);
  return faults;
}

export async function crowd(
  world: World,
  {
    clients,
    greedy,
    edits,
    seed,
    until,
  }: { clients: number; greedy: number; edits: number; seed: number; until: number },
): Promise<Report> {
  const random = seeded(seed);
  const watch = new Watch();
  // Requests of before may have removed it.
  await ask(`${world.url}/api/plans/${PLAN}/recover`, post(undefined));
  const made = await ask(`${world.url}/api/plans`, post({ name: 'Crowd', modelId: 'tern-p2' }));
  const planIds = [PLAN, (made.body as { plan: Plan }).plan.id];
  const answered: Answered[] = [];
  const waits: number[] = [];
  let refused = 0;
  let lost = 0;

  const editsOf = (plan: Plan, count: number) =>
    fc.sample(anyEditOn(plan), { numRuns: count, seed: Math.floor(random() * 2 ** 31) });
  const send = async (planId: string, client: string, n: number, base: number, edit: Edit) => {
    const key = `${client}.${n}`;
    const request = post({ base, edit }, { 'Idempotency-Key': key });
    const path = `/api/plans/${planId}/edits`;
    // One who sends sixty at once waits for those; that is its own affair.
    const patience = client.startsWith('greedy') ? Math.max(120_000, limits.answerMs) : limits.answerMs;
    let answer = await ask(world.url + path, request, patience);
    if (answer.status === 200 && random() < 0.1) {
      // The answer was lost on the way, so it is sent again: the same answer, and nothing more done.
      const again = await ask(world.url + path, request, patience);
      lost++;
      if (!isDeepStrictEqual(again.body, answer.body))
        watch.note(`${key} sent again: ${JSON.stringify(again.body).slice(0, 200)}`);
      answer = again;
    }
    const said = answer.body as { revision?: number };
    if (answer.status === 200) answered.push({ planId, key, revision: said.revision! });
    else refused++;
    return answer;
  };
  const load = async (planId: string) =>
    (await ask(`${world.url}/api/plans/${planId}`)).body as { plan: Plan; revision: number };

  const polite = async (who: number) => {
    for (let n = 0; n < edits && Date.now() < until; n++) {
      const planId = planIds[(who + n) % planIds.length]!;
      const state = await load(planId);
      if (!state.plan) {
        watch.note(`${planId} could not be loaded: ${JSON.stringify(state).slice(0, 200)}`);
        continue;
      }
      const [edit] = editsOf(state.plan, 1);
      const answer = await send(planId, `polite${who}`, n, state.revision, edit!);
      waits.push(answer.ms);
      watch.take(`POST /api/plans/${planId}/edits`, answer);
    }
  };
  // Thought up beforehand, so that what is measured is the server and not this process.
  const waves = await Promise.all(
    Array.from({ length: greedy }, async (_, who) => {
      const planId = planIds[who % planIds.length]!;
      const { plan, revision } = await load(planId);
      return { planId, revision, all: editsOf(plan, 60 * Math.ceil(edits / 10)) };
    }),
  );
  const rude = async (who: number) => {
    const { planId, revision, all } = waves[who]!;
    for (let from = 0; from < all.length && Date.now() < until; from += 60) {
      const wave = all
        .slice(from, from + 60)
        .map((edit, n) => send(planId, `greedy${who}`, from + n, revision, edit));
      // Its own wait for each other, and nobody else for them.
      for (const answer of await Promise.all(wave))
        watch.take(`POST /api/plans/${planId}/edits`, answer, Infinity);
    }
  };
  await Promise.all([
    ...Array.from({ length: clients }, (_, who) => polite(who)),
    ...Array.from({ length: greedy }, (_, who) => rude(who)),
  ]);
  for (const planId of planIds)
    for (const fault of await logFaults(
      world,
      planId,
      answered.filter((one) => one.planId === planId),
    ))
      watch.note(fault);
  const twice = new Set(answered.map(({ planId, revision }) => `${planId} ${revision}`));
  if (twice.size !== answered.length) watch.note('Two changes were answered with the same revision');
  return {
    attack: 'a crowd',
    figures: {
      ...watch.figures(),
      'edits kept': answered.length,
      refused,
      'sent again': lost,
      'one who types waits, 95th and longest, ms': `${Math.round(quantile(waits, 0.95))}, ${Math.round(quantile(waits, 1))}`,
    },
    broken: watch.broken,
  };
}
