import type { z } from 'zod';
import type { Result } from '../../result';
import type { Plan } from '../plan';

/** A kind of edit, whole in one file: what it takes, what it does, what it is called. */
export interface EditKind<S extends z.ZodType> {
  schema: S;
  /** Succeeds whole with a new plan, or fails with a reason and leaves the plan as it was; pure. What it leaves alone stays the very same. */
  apply(plan: Plan, edit: z.output<S>): Result<Plan>;
  /** In plain words for the history and the undo button; `plan` is the one that it is run on. */
  label(edit: z.output<S>, plan: Plan): string;
}

/** Says what an edit is, with its types kept. */
export const defineEdit = <S extends z.ZodType>(kind: EditKind<S>): EditKind<S> => kind;
