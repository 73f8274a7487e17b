import {
  alikeIn,
  applied,
  differenceOf,
  isNothing,
  type DocumentDifference,
  type RecordChanges,
} from '../document/difference';
import type { Result } from '../result';
import type { Kind } from './kinds';
import type { RecordOf } from './kinds.schema';
import type { Plan, PlanHead, SettingChanges } from './plan.schema';
import { PLAN_STRUCTURE } from './structure';

/**
 * How two plans differ. All that has to be known of a change comes of this: its inverse, what is written to the tables, what
 * a worker is sent. Kinds without a difference are not there.
 */
export interface Difference {
  records: { [K in Kind]?: RecordChanges<RecordOf<K>> };
  /** What is said of the plan as a whole, as far as it changed, and without its settings. */
  head?: Partial<PlanHead>;
  settings?: SettingChanges;
}

/** What leads from `before` to `after`: see `differenceOf`. */
export const difference = (before: Plan, after: Plan): Difference =>
  differenceOf(PLAN_STRUCTURE, before, after) as Difference;

/** The plan with every record that is alike in `other` as the very same as there. */
export const sharedWith = (other: Plan, plan: Plan): Plan => alikeIn(PLAN_STRUCTURE, other, plan);

/** True where there is nothing in it. */
export const isNoDifference = (one: Difference): boolean => isNothing(one as DocumentDifference);

/**
 * The plan with a difference applied. References to missing records are removed. Fails where two channels would have
 * the same slot.
 */
export const applyDifference = (plan: Plan, one: Difference): Result<Plan> =>
  applied(PLAN_STRUCTURE, plan, one as DocumentDifference);
