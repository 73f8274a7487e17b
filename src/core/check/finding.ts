import type { Model } from '../models';
import type { Fit } from '../fit';
import type { Channel, ChannelId, Edit, Plan } from '../plan';
import type { Neighbour } from './neighbour';

/** A stop will not be written; a caution will be, mind the consequence; a hint is worth a thought. */
export const SEVERITIES = ['stop', 'caution', 'hint'] as const;
export type Severity = (typeof SEVERITIES)[number];

/** The column that a finding speaks of. */
export type FindingField = 'slot' | 'name' | 'rx' | 'tx' | 'access' | 'mode' | 'power' | 'scan';

/** An edit that takes a finding away, and what the button says. */
export interface Mend {
  label: string;
  edit: Edit;
}

export interface Finding {
  /** The rule's id, the name of its file. */
  rule: string;
  severity: Severity;
  id: ChannelId;
  field: FindingField;
  /** What happens on air, in one short sentence, without blame. */
  text: string;
  mend?: Mend;
  /** Other ways to take it away, the first beside `mend`. */
  others?: Mend[];
  /** The table that decided, where one did. */
  source?: string;
}

/** What a rule sees. */
export interface CheckContext {
  plan: Plan;
  model: Model;
  fit: Fit;
  /** Repeaters near where the plan is used that a directory knows; empty where none was asked. */
  neighbours: readonly Neighbour[];
}

/** A finding as its rule makes it: with the mends that it has to offer, the best first. Check leaves out those that would not hold. */
export type RuleFinding = Omit<Finding, 'rule' | 'others'> & { mends?: readonly Mend[] };
/** What a rule of one channel says. */
export type ChannelFinding = Omit<RuleFinding, 'id'>;

/** A rule: its id, what it looks for in plain words, and its findings. */
export interface Rule {
  id: string;
  looksFor: string;
  find(context: CheckContext): RuleFinding[];
  /** Rules of one channel at a time: what is said of that one. */
  findOne?(channel: Channel, context: CheckContext): ChannelFinding | undefined;
}

/** A rule that looks at one channel at a time and has at most one thing to say of it. */
export function channelRule(
  id: string,
  looksFor: string,
  findOne: (channel: Channel, context: CheckContext) => ChannelFinding | undefined,
): Rule {
  return {
    id,
    looksFor,
    findOne,
    find: (context) =>
      context.plan.channels.flatMap((channel) => {
        const found = findOne(channel, context);
        return found ? [{ ...found, id: channel.id }] : [];
      }),
  };
}

/** The mend that sets fields of one channel. */
export function setMend(
  channel: Channel,
  label: string,
  set: Extract<Edit, { name: 'change' }>['changes'][number]['set'],
): Mend {
  return { label, edit: { name: 'change', changes: [{ id: channel.id, set }] } };
}

/** The mend that takes a channel out of the plan: another radio may have what it wants. */
export const leaveOut = ({ id }: Channel): Mend => ({
  label: 'Leave it out',
  edit: { name: 'remove', ids: [id] },
});

/**
 * One edit that mends all findings alike: those of the same rule whose mend says the same. Undefined where there is only
 * one, or where the mends are not plain changes of fields and so cannot be joined.
 *
 * @example mendTogether(findings, first) // { count: 6, edit: six channels to listen only }
 */
export function mendTogether(
  findings: readonly Finding[],
  like: Finding,
): { count: number; edit: Edit } | undefined {
  const changes = new Map<ChannelId, Extract<Edit, { name: 'change' }>['changes'][number]>();
  for (const { rule, mend } of findings) {
    if (rule !== like.rule || mend?.label !== like.mend?.label) continue;
    if (mend?.edit.name !== 'change') return undefined;
    for (const change of mend.edit.changes) changes.set(change.id, change);
  }
  if (changes.size < 2) return undefined;
  return { count: changes.size, edit: { name: 'change', changes: [...changes.values()] } };
}

const MANY: Record<Severity, string> = { stop: 'stops', caution: 'cautions', hint: 'hints' };

/** How many findings there are of each severity, also in words; severities without any are left out. */
export function countFindings(findings: readonly Pick<Finding, 'severity'>[]): FindingCount[] {
  return SEVERITIES.map((severity) => ({
    severity,
    n: findings.filter((finding) => finding.severity === severity).length,
  }))
    .filter(({ n }) => n > 0)
    .map(({ severity, n }) => ({ severity, n, text: `${n} ${n === 1 ? severity : MANY[severity]}` }));
}

export interface FindingCount {
  severity: Severity;
  n: number;
  /** `1 stop`, `8 cautions`. */
  text: string;
}
