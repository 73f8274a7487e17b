import { ask, changeKey, Refusal, Unreachable } from '@/api/ask';
import type { KeptPlan } from '@/api/plans';
import type { PlanId } from '@/core/plan';
import { kindOf } from '@/core/problems';
import type { ProblemDocument } from '@/core/problems.schema';
import type { PlanServer } from './plan-store';

/**
 * How the plan page asks the interface. What checks the answers, schemas of all that a plan holds, weighs as much as the table
 * itself: it is fetched when the plan is on screen, and whoever opens a plan does not wait for it.
 */
async function fetchContract() {
  const [{ call, refusalOf }, { planApi }] = await Promise.all([import('@/api/call'), import('@/api/plans')]);
  return { call, refusalOf, planApi };
}
type Contract = Awaited<ReturnType<typeof fetchContract>>;

let fetched: Promise<Contract> | undefined;

/** The contract; throws `Unreachable` where it cannot be fetched. */
export async function contract(): Promise<Contract> {
  fetched ??= fetchContract();
  try {
    return await fetched;
  } catch {
    fetched = undefined;
    throw new Unreachable();
  }
}

/**
 * Asks as the contract has it. Where that could not be fetched, since the server was away just then, the browser may never fetch it
 * again in this page: what was typed is sent all the same, and the answer taken as it comes, rather than not being kept.
 */
async function asking<R>(
  checked: (by: Contract) => Promise<R>,
  method: string,
  address: string,
  options: { key?: string; body?: unknown } = {},
): Promise<R> {
  let by: Contract;
  try {
    by = await contract();
  } catch {
    const { ok, status, answer } = await ask(method, address, options);
    if (ok) return answer as R;
    const { type, detail } = (answer ?? {}) as Partial<ProblemDocument>;
    throw new Refusal(
      status,
      type ? kindOf(type) : null,
      detail ?? `The server answered with status ${status}.`,
    );
  }
  return checked(by);
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
  const address = `/api/plans/${id}`;
  return {
    edit: (base, edit, key) =>
      asking(
        ({ call, planApi }) => call(planApi.edit, { params, body: { base, edit }, key }),
        'POST',
        `${address}/edits`,
        { key, body: { base, edit } },
      ),
    step: (base, kind, key) =>
      asking(
        ({ call, planApi }) => call(planApi[kind], { params, query: { base }, key }),
        'POST',
        `${address}/${kind}?base=${base}`,
        { key },
      ),
    goBack: (base, revision, key) =>
      asking(
        ({ call, planApi }) => call(planApi.goBack, { params, body: { base, revision }, key }),
        'POST',
        `${address}/go-back`,
        { key, body: { base, revision } },
      ),
    load: () => asking(({ call, planApi }) => call(planApi.plan, { params }), 'GET', address),
    key: changeKey,
    wait: (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
  };
}
