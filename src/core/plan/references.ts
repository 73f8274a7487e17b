import { KIND_NAMES, KINDS, recordsOf, referencesOf, withRecords, type Kind } from './kinds';
import type { AnyRecord } from './kinds.schema';
import type { Plan } from './plan.schema';

/** The kinds whose records refer to others; the others need not be looked through. */
const REFERRING = KIND_NAMES.filter((kind) => Object.keys(KINDS[kind].refs).length > 0);

const idsOf = (plan: Plan, kind: Kind): Set<string> =>
  new Set(recordsOf(plan, kind).map(({ id }: AnyRecord) => id));

/**
 * The plan with every reference to a record that is gone taken out. Records that refer to none stay the very same, and so
 * does a plan without any.
 */
export function withoutDangling(plan: Plan): Plan {
  let result = plan;
  for (const kind of REFERRING) {
    const there = new Map<Kind, Set<string>>();
    let changed = false;
    const records = recordsOf(plan, kind).map((record: AnyRecord) => {
      let kept = record;
      for (const { field, to, ids } of referencesOf(kind, record)) {
        if (!there.has(to)) there.set(to, idsOf(plan, to));
        const held = there.get(to)!;
        if (ids.every((id) => held.has(id))) continue;
        kept = { ...kept, [field]: ids.filter((id) => held.has(id)) };
        changed = true;
      }
      return kept;
    });
    if (changed) result = withRecords(result, kind, records);
  }
  return result;
}

/** The first reference to a record that is not in the plan, in a sentence; null where all lead somewhere. */
export function danglingFault(plan: Plan): string | null {
  for (const kind of REFERRING) {
    const there = new Map<Kind, Set<string>>();
    for (const record of recordsOf(plan, kind) as readonly AnyRecord[])
      for (const { to, ids } of referencesOf(kind, record)) {
        if (!there.has(to)) there.set(to, idsOf(plan, to));
        const lost = ids.find((id) => !there.get(to)!.has(id));
        if (lost !== undefined)
          return `The ${KINDS[kind].words.one} ${record.id} names ${lost}, and there is no such ${KINDS[to].words.one} in the plan.`;
      }
  }
  return null;
}
