import equal from 'fast-deep-equal';
import { fail, type Result } from '../result';
import { difference } from './difference';
import { applyPlain, plainLabel } from './edits/plain';
import { together } from './edits/together';
import { KIND_NAMES, KINDS, recordsOf, type Kind } from './kinds';
import type { AnyRecord } from './kinds.schema';
import { HEAD_FIELDS } from './plan';
import { fieldKept } from './references';
import { labelWords } from './label';
import type { LabelParts } from './label.schema';
import type { Plan } from './plan.schema';
import { settingChanges, settingsClash, withSettings } from './setting-changes';
import type { Edit, EditNamed } from './edit.schema';

/**
 * Runs an edit. Succeeds whole with a new plan, or fails with a reason and leaves the plan as it was; pure.
 *
 * @example applyEdit(plan, { name: 'change', changes: [{ id, set: { tx: null } }] })
 */
export const applyEdit = (plan: Plan, edit: Edit): Result<Plan> =>
  edit.name === 'together' ? together.apply(plan, edit) : applyPlain(plan, edit);

/** An edit in plain words; `plan` is the one that it is run on. */
export const editLabel = (edit: Edit, plan: Plan): string => labelWords(labelOfEdit(edit, plan));

/** What the label of an edit says; `plan` is the one that it is run on. */
export const labelOfEdit = (edit: Edit, plan: Plan): LabelParts =>
  edit.name === 'together' ? together.label(edit, plan) : plainLabel(edit, plan);

/** The edit that leads from `after` back to `before`: found by comparing the two, so it fits every edit. */
export const inverseOf = (before: Plan, after: Plan): EditNamed<'restore'> => ({
  name: 'restore',
  ...difference(after, before),
});

/**
 * Runs an edit that was made on `base` again on `newest`. Refused where it fails there, or where it sets
 * something that has been changed since: nobody's work is overwritten unseen.
 */
export function rebaseEdit(edit: Edit, base: Plan, newest: Plan): Result<Plan> {
  const wanted = applyEdit(base, edit);
  if (!wanted.ok) return wanted;
  const result = applyEdit(newest, edit);
  if (!result.ok) return result;
  for (const kind of KIND_NAMES) {
    const clash = clashOf(kind, base, wanted.value, newest);
    if (clash) return fail(clash);
  }
  const mine = settingChanges(base.settings, wanted.value.settings);
  const theirs = settingChanges(base.settings, newest.settings);
  // Whoever sets all of them at once, as edits did before, would undo what others set.
  const kept = mine === undefined || equal(result.value.settings, withSettings(newest.settings, mine));
  if (theirs && (!kept || (mine && settingsClash(mine, theirs))))
    return fail('This setting of the radio was changed meanwhile. Look at it and try again.');
  for (const field of HEAD_FIELDS) {
    if (
      field !== 'settings' &&
      !equal(wanted.value[field], base[field]) &&
      !equal(newest[field], base[field])
    )
      return fail('The details of this plan were changed meanwhile. Look at them and try again.');
  }
  return result;
}

/** A record of which an edit sets what somebody has changed meanwhile, in a sentence; undefined where there is none. */
function clashOf(kind: Kind, base: Plan, wanted: Plan, newest: Plan): string | undefined {
  const [old, asked, now] = [base, wanted, newest].map(
    (plan) => recordsOf(plan, kind) as readonly AnyRecord[],
  );
  // What was not touched is the very same list: on a large plan that is nearly always one of the two.
  if (old === asked || old === now) return undefined;
  const byId = (records: readonly AnyRecord[]) =>
    new Map<string, AnyRecord>(records.map((record) => [record.id, record]));
  const [askedById, nowById] = [byId(asked!), byId(now!)];
  for (const before of old!) {
    const mine = askedById.get(before.id);
    const theirs = nowById.get(before.id);
    if (mine === before || !theirs || theirs === before) continue;
    // Not the fields that are there: one that may be missing can have been added on both sides.
    for (const [field, words] of Object.entries(KINDS[kind].words.fields)) {
      const set = mine === undefined || !same(kind, field, mine, before, wanted);
      if (set && !same(kind, field, theirs, before, newest))
        return `“${before.name}” was changed meanwhile (${words}). Look at it and try again.`;
    }
  }
  return undefined;
}

/** True where a field was left alone; a reference that went with what it referred to was. */
function same(kind: Kind, field: string, record: AnyRecord, before: AnyRecord, plan: Plan): boolean {
  const [is, was] = [record, before].map((one) => (one as unknown as Record<string, unknown>)[field]);
  return equal(is, was) || equal(is, fieldKept(kind, before, field, plan));
}
