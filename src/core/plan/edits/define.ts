import type { Result } from '../../result';
import type { Plan } from '../plan.schema';

/** A kind of edit: what it does, what it is called. What it takes stands beside it, in its schema. */
export interface EditKind<E> {
  /** Succeeds whole with a new plan, or fails with a reason and leaves the plan as it was; pure. What it leaves alone stays the very same. */
  apply(plan: Plan, edit: E): Result<Plan>;
  /** In plain words for the history and the undo button; `plan` is the one that it is run on. */
  label(edit: E, plan: Plan): string;
}

/** Says what an edit is, with its types kept. */
export const defineEdit = <E>(kind: EditKind<E>): EditKind<E> => kind;
