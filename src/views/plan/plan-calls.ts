import { ask, changeKey, Unreachable } from '@/api/ask';
import type { KeptPlan } from '@/api/plans';
import type { PlanId } from '@/core/plan';
import type { PlanServer } from './plan-store';

/**
 * How the plan page asks the interface. What checks the answers, schemas of all that a plan holds, weighs as much as the table
 * itself: it is fetched when the plan is on screen, and whoever opens a plan does not wait for it.
 */
export async function contract() {
  try {
    const [{ call, refusalOf }, { planApi }] = await Promise.all([
      import('@/api/call'),
      import('@/api/plans'),
    ]);
    return { call, refusalOf, planApi };
  } catch {
    // It comes from the server like all else; what waits is sent when it is there again.
    throw new Unreachable();
  }
}

/** The plan to work on. The worker beside the page checks it: a large one would hold the page up for as long as all else. */
export async function openPlan(id: PlanId): Promise<KeptPlan> {
  const { ok, status, answer } = await ask('GET', `/api/plans/${id}`);
  if (ok) return answer as KeptPlan;
  const { refusalOf } = await contract();
  throw refusalOf(status, answer);
}

/** The server as the plan's store needs it. */
export function planServer(id: PlanId): PlanServer {
  const params = { id };
  return {
    async edit(base, edit, key) {
      const { call, planApi } = await contract();
      return call(planApi.edit, { params, body: { base, edit }, key });
    },
    async step(base, kind, key) {
      const { call, planApi } = await contract();
      return call(planApi[kind], { params, query: { base }, key });
    },
    async goBack(base, revision, key) {
      const { call, planApi } = await contract();
      return call(planApi.goBack, { params, body: { base, revision }, key });
    },
    async load() {
      const { call, planApi } = await contract();
      return call(planApi.plan, { params });
    },
    key: changeKey,
    wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
  };
}
