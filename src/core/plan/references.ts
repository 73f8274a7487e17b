import * as documents from '../document/references';
import type { IsThere } from '../document/shape';
import type { Kind } from './kinds';
import type { AnyRecord } from './kinds.schema';
import type { Plan } from './plan.schema';
import { PLAN_STRUCTURE } from './structure';

/** References between the records of a plan: the machinery of documents, with the types of plans. */

type Among = Parameters<typeof documents.withoutDangling>[2];
type IsKindThere = (to: Kind, id: string) => boolean;

/** A record without its references to what is not there; the very same where it has none of those. */
export const keptReferences = <R extends AnyRecord>(kind: Kind, record: R, isThere: IsKindThere): R =>
  documents.keptReferences(PLAN_STRUCTURE, kind, record, isThere as IsThere);

/** A record with the references of an earlier state of it put back that are lost: what they lead to went, and they with it. */
export const withLostReferences = <R extends AnyRecord>(
  kind: Kind,
  record: R,
  was: R,
  isLost: IsKindThere,
): R => documents.withLostReferences(PLAN_STRUCTURE, kind, record, was, isLost as IsThere);

/**
 * The plan with every reference to a record that is gone taken out. Records that refer to none stay the very same, and so
 * does a plan without any.
 */
export const withoutDangling = (plan: Plan, among?: Among): Plan =>
  documents.withoutDangling(PLAN_STRUCTURE, plan, among);

/**
 * The first reference to a record that is not in the plan, in a sentence; null where all lead somewhere. `only` are the records that
 * are looked at, where the others are known to be right.
 */
export const danglingFault = (plan: Plan, only?: { [K in Kind]?: readonly AnyRecord[] }): string | null =>
  documents.danglingFault(PLAN_STRUCTURE, plan, only);

/** Records that come from elsewhere, without their references to what a plan does not have; those that lose nothing stay the very same. */
export function withReferencesThere<R extends AnyRecord>(plan: Plan, kind: Kind, records: readonly R[]): R[] {
  const isThere = documents.thereIn(PLAN_STRUCTURE, plan);
  return records.map((record) => documents.keptReferences(PLAN_STRUCTURE, kind, record, isThere));
}

/** The records that refer to one of those, by kind; kinds of which none does are left out. */
export const referringTo = (
  plan: Plan,
  kind: Kind,
  ids: ReadonlySet<string>,
): { kind: Kind; records: readonly AnyRecord[] }[] =>
  documents.referringTo(PLAN_STRUCTURE, plan, kind, ids) as { kind: Kind; records: readonly AnyRecord[] }[];
