import equal from 'fast-deep-equal';
import type { Model } from '../models';
import type { ChannelChange, Edit, Plan } from '../plan';
import { mendsOf } from './check';
import type { Finding } from './finding.schema';

/** One edit that mends many findings alike, and what the button says. */
export interface MendForMany {
  label: string;
  count: number;
  edit: Edit;
}

/**
 * The one edit that mends most of the findings of a group alike: those whose best mend says the same as that of the first that has
 * one. Undefined where there is only one, or where the mends are not plain changes of fields and so cannot be joined.
 *
 * @example mendTogether(sixOutsideTheLicence, plan, model) // { label: 'Make it listen only', count: 6, edit }
 */
export function mendTogether(
  findings: readonly Finding[],
  plan: Plan,
  model: Model,
): MendForMany | undefined {
  const changes = new Map<string, ChannelChange>();
  let label: string | undefined;
  /** One edit that is the mend of all: of the plan as a whole. */
  let whole: { edit: Edit; count: number } | undefined;
  for (const finding of findings) {
    const [mend] = mendsOf(finding, plan, model);
    if (!mend) continue;
    label ??= mend.label;
    if (mend.label !== label) continue;
    const { edit } = mend;
    if (edit.name === 'describe') {
      if (whole && !equal(whole.edit, edit)) return undefined;
      whole = { edit, count: (whole?.count ?? 0) + 1 };
      continue;
    }
    if (edit.name !== 'change' || !(edit.kind === undefined || edit.kind === 'channel')) return undefined;
    for (const change of edit.changes) changes.set(change.id, change);
  }
  if (label !== undefined && whole && whole.count > 1 && changes.size === 0) return { label, ...whole };
  if (label === undefined || whole || changes.size < 2) return undefined;
  return { label, count: changes.size, edit: { name: 'change', changes: [...changes.values()] } };
}

/** Everything that can be mended without taking a channel out, as one edit; each way out with how often it is taken. */
export interface MendOfAll {
  parts: { label: string; count: number }[];
  /** Findings that are left: a person must choose, or another mend of the same channel comes first. */
  left: number;
  edit: Edit;
}

/**
 * The best way out of each finding, as one edit; undefined where there is none. The gravest come first: a field that one mend has set
 * no other sets otherwise, so that what is mended stays so.
 */
export function mendEverything(
  findings: readonly Finding[],
  plan: Plan,
  model: Model,
): MendOfAll | undefined {
  const changes = new Map<string, ChannelChange>();
  const parts = new Map<string, number>();
  let left = 0;
  for (const finding of findings) {
    const mend = mendsOf(finding, plan, model).find(({ edit }) => edit.name === 'change');
    const edit = mend?.edit;
    const wanted = edit?.name === 'change' && (edit.kind ?? 'channel') === 'channel' ? edit.changes : [];
    const clash = wanted.some(({ id, set }) =>
      Object.keys(set).some((field) => Object.hasOwn(changes.get(id)?.set ?? {}, field)),
    );
    if (!mend || wanted.length === 0 || clash) {
      left++;
      continue;
    }
    for (const { id, set } of wanted as readonly ChannelChange[])
      changes.set(id, { id, set: { ...changes.get(id)?.set, ...set } });
    parts.set(mend.label, (parts.get(mend.label) ?? 0) + 1);
  }
  if (changes.size === 0) return undefined;
  return {
    parts: [...parts].map(([label, count]) => ({ label, count })),
    left,
    edit: { name: 'change', changes: [...changes.values()] },
  };
}
