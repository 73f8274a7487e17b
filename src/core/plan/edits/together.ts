import { ok, type Result } from '../../result';
import type { Plan } from '../plan.schema';
import { defineEdit } from './define';
import { applyPlain } from './plain';
import type { TogetherEdit } from './together.schema';

/** Several edits as one: done whole or not at all, undone at once. Each is run on what the one before it made. */
export const together = defineEdit<TogetherEdit>({
  apply: (plan, { edits }) =>
    edits.reduce<Result<Plan>>((so, edit) => (so.ok ? applyPlain(so.value, edit) : so), ok(plan)),
  label: ({ label }) => ({ of: 'together', label }),
});
