import type { Result } from '../../result';
import type { LabelParts } from '../label.schema';
import type { Plan } from '../plan.schema';

/** A kind of edit: what it does, what it is called. What it takes stands beside it, in its schema. */
export interface EditKind<E> {
  /** Succeeds whole with a new plan, or fails with a reason and leaves the plan as it was; pure. What it leaves alone stays the very same. */
  apply(plan: Plan, edit: E): Result<Plan>;
  /** What its label says; `plan` is the one that it is run on. The words are in `label.ts`. */
  label(edit: E, plan: Plan): LabelParts;
}

/** Says what an edit is, with its types kept. */
export const defineEdit = <E>(kind: EditKind<E>): EditKind<E> => kind;
