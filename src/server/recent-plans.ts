import type { Plan } from '../core/plan';

/**
 * Plans as they were at their last revisions, in memory: an edit that was made a moment ago, on what is not the newest any
 * more, is held against what it was made on without going back through the log. A revision never changes once it is kept,
 * so nothing here is ever wrong; it is only forgotten.
 */

/** Bytes of JSON that are remembered over all plans; in memory they take some three times as much. */
const MOST_BYTES = 16_000_000;

interface Recent {
  plan: Plan;
  bytes: number;
}
const recent = new Map<string, Recent>();
let bytesHeld = 0;

const keyOf = (id: string, revision: number) => `${id} ${revision}`;

/** Remembers a plan at a revision that has been kept, and not merely tried; the oldest are forgotten for it. */
export function rememberPlan(id: string, revision: number, plan: Plan, bytes: number): void {
  const key = keyOf(id, revision);
  if (recent.has(key) || bytes > MOST_BYTES / 4) return;
  recent.set(key, { plan, bytes });
  bytesHeld += bytes;
  for (const [oldest, held] of recent) {
    if (bytesHeld <= MOST_BYTES) return;
    recent.delete(oldest);
    bytesHeld -= held.bytes;
  }
}

/** The plan at a revision, where it is remembered. */
export const recentPlan = (id: string, revision: number): Plan | undefined =>
  recent.get(keyOf(id, revision))?.plan;
