import type { Severity } from './finding';
import type { Finding } from './finding.schema';
import { capital } from '../text';

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

const inWords = (words: string) => `${capital(words)}.`;
