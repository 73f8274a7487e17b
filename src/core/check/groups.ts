import type { Model } from '../models';
import type { ChannelChange, Edit, Plan } from '../plan';
import { mendsOf } from './check';
import type { Finding, Severity } from './finding';

/** Findings of one kind: what one rule says with one weight. Shown as one row, and opened on demand. */
export interface FindingGroup {
  /** The rule and the severity. */
  key: string;
  severity: Severity;
  /** The sentence that all have in common, or what the rule looks for. */
  text: string;
  findings: Finding[];
}

/** The group that a finding belongs to. */
export const groupKey = ({ severity, rule }: Pick<Finding, 'severity' | 'rule'>) => `${severity} ${rule}`;

/** The findings by kind, in the order of the first of each; `lookedFor` says what each rule looks for. */
export function groupFindings(
  findings: readonly Finding[],
  lookedFor: Readonly<Record<string, string>>,
): FindingGroup[] {
  const groups: FindingGroup[] = [];
  const bySeverity = new Map<Severity, Map<string, FindingGroup>>();
  for (const finding of findings) {
    const { severity, rule, text } = finding;
    let byRule = bySeverity.get(severity);
    if (!byRule) bySeverity.set(severity, (byRule = new Map()));
    const group = byRule.get(rule);
    if (!group) {
      const first: FindingGroup = { key: groupKey(finding), severity, text, findings: [finding] };
      byRule.set(rule, first);
      groups.push(first);
    } else {
      if (group.text !== text) group.text = inWords(lookedFor[rule] ?? rule);
      group.findings.push(finding);
    }
  }
  return groups;
}

const inWords = (words: string) => `${words[0]!.toUpperCase()}${words.slice(1)}.`;

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
  for (const finding of findings) {
    const [mend] = mendsOf(finding, plan, model);
    if (!mend) continue;
    label ??= mend.label;
    if (mend.label !== label) continue;
    if (mend.edit.name !== 'change' || mend.edit.kind === 'zone') return undefined;
    for (const change of mend.edit.changes) changes.set(change.id, change);
  }
  if (label === undefined || changes.size < 2) return undefined;
  return { label, count: changes.size, edit: { name: 'change', changes: [...changes.values()] } };
}
