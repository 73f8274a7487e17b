import type { Result } from '../../result';
import type { LabelParts } from '../label.schema';
import type { Plan } from '../plan.schema';
import { arrange } from './arrange';
import { change } from './change';
import type { EditKind } from './define';
import { describePlan } from './describe';
import { order } from './order';
import { place } from './place';
import type { PlainEdit } from './plain.schema';
import { put } from './put';
import { remove } from './remove';
import { restore } from './restore';
import { setSettings } from './set';

/** An edit with the kind that carries it out; the switch is what tells TypeScript that they belong together. */
function carried<T>(edit: PlainEdit, run: <E>(kind: EditKind<E>, edit: E) => T): T {
  switch (edit.name) {
    case 'change':
      return run(change, edit);
    case 'place':
      return run(place, edit);
    case 'put':
      return run(put, edit);
    case 'remove':
      return run(remove, edit);
    case 'order':
      return run(order, edit);
    case 'arrange':
      return run(arrange, edit);
    case 'describe':
      return run(describePlan, edit);
    case 'restore':
      return run(restore, edit);
    case 'set':
      return run(setSettings, edit);
  }
}

export const applyPlain = (plan: Plan, edit: PlainEdit): Result<Plan> =>
  carried(edit, (kind, own) => kind.apply(plan, own));

export const plainLabel = (edit: PlainEdit, plan: Plan): LabelParts =>
  carried(edit, (kind, own) => kind.label(own, plan));
