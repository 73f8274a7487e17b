import type { PlanId } from '../core/plan';
import { reading } from './database';
import { wantRow } from './plan-rows';
import { Problem } from './problem';

/** What those are told who look at a plan: the newest revision, and what was done last in words where it was done while they looked. */
export interface Told {
  revision: number;
  label: string | null;
}

type Listener = (told: Told) => void;

// One for the process, however often modules are loaded again.
const shared = globalThis as { veridonWatchers?: Map<PlanId, Set<Listener>> };
const watchers = (shared.veridonWatchers ??= new Map());

/** Tells all who look at a plan of a revision that was kept. */
export function announce(id: PlanId, told: Told): void {
  for (const listener of watchers.get(id) ?? []) listener(told);
}

/** Most who look at once: each holds a connection. */
const MOST = 200;

/** How long nothing is said before a line that says nothing, so that a connection that broke is noticed, ms. */
const QUIET_MS = 15_000;

const event = (told: Told) => `data: ${JSON.stringify(told)}\n\n`;

/**
 * What happens to a plan from now on, as an event stream (WHATWG HTML, 9.2): its newest revision at once, then each that is kept; of
 * several at once the last. Ends when whoever asked has gone.
 */
export async function watchPlan(id: PlanId, gone: AbortSignal): Promise<AsyncIterable<string>> {
  const { revision } = await wantRow(await reading(), id);
  const all = [...watchers.values()].reduce((n, own) => n + own.size, 0);
  if (all >= MOST)
    throw new Problem(
      429,
      'too-many',
      'Too many look on',
      `${MOST} pages look at plans already. Close some of them; this one shows what is new when it is looked at again.`,
    );
  return told(id, revision, gone);
}

async function* told(id: PlanId, revision: number, gone: AbortSignal): AsyncGenerator<string> {
  let news: Told | null = { revision, label: null };
  let wake: () => void = () => {};
  const listener: Listener = (one) => {
    news = one;
    wake();
  };
  const own = watchers.get(id) ?? new Set();
  watchers.set(id, own.add(listener));
  const leave = () => wake();
  gone.addEventListener('abort', leave);
  try {
    yield 'retry: 1500\n\n';
    while (!gone.aborted) {
      if (news) {
        const now: Told = news;
        news = null;
        yield event(now);
        continue;
      }
      let timer: NodeJS.Timeout | undefined;
      const quiet = await new Promise<boolean>((done) => {
        wake = () => done(false);
        timer = setTimeout(() => done(true), QUIET_MS);
        timer.unref();
      });
      clearTimeout(timer);
      if (quiet) yield ': still here\n\n';
    }
  } finally {
    gone.removeEventListener('abort', leave);
    own.delete(listener);
    if (own.size === 0) watchers.delete(id);
  }
}
