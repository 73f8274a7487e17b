import type { Model } from '../models';
import type { Fit, Obstacle } from '../fit';
import type { Channel, ChannelChange, ChannelId, FIELD_NAMES, Kind, Plan } from '../plan';
import type { GuardAnswer } from '../radio';
import type { Neighbour } from './neighbour';
import type { Finding, FindingCount, FindingOfChannel, Mend } from './finding.schema';

/** A stop will not be written; a caution will be, mind the consequence; a hint is worth a thought. */
export const SEVERITIES = ['stop', 'caution', 'hint'] as const;

export type Severity = (typeof SEVERITIES)[number];

/** The fields that a finding may speak of: those of a channel that are columns. */
export const FINDING_FIELDS = [
  'slot',
  'name',
  'rx',
  'tx',
  'access',
  'mode',
  'power',
  'scan',
] as const satisfies readonly (keyof typeof FIELD_NAMES)[];

export type FindingField = (typeof FINDING_FIELDS)[number];

/** What is known of a channel by itself, worked out once for all rules. */
export interface Facts {
  /** What keeps it out of the model, as the fit has it. */
  obstacles: readonly Obstacle[];
  /** The model can send there. */
  sends: boolean;
  /** What the licence says of its transmit side; undefined where the model does not send. */
  licence?: GuardAnswer;
}

/** What a rule sees. */
export interface CheckContext {
  plan: Plan;
  model: Model;
  fit: Fit;
  /** What the display reads, by the place of the channel; undefined for those that the model cannot hold. */
  shown: readonly (string | undefined)[];
  /** Repeaters near where the plan is used that a directory knows; empty where none was asked. */
  neighbours: readonly Neighbour[];
  /** The channels that the radio will hold, and where. */
  held: ReadonlyMap<ChannelId, { list: number; slot: number }>;
  factsOf(channel: Channel): Facts;
}

/** The ways out that a rule has to offer, the best first; of those of one channel Check leaves out what would not hold. */
type Mending = (context: CheckContext) => readonly Mend[];

/** A finding of a channel as its rule makes it. */
export interface RuleFinding extends Omit<FindingOfChannel, 'rule' | 'kind'> {
  mends?: Mending;
}

/** What a rule of one channel says. */
export type ChannelFinding = Omit<RuleFinding, 'id'>;

/** A finding of any record as its rule makes it. */
export type RecordFinding = { severity: Severity; text: string; mends?: Mending } & (
  | { kind: 'channel'; id: ChannelId; field: FindingField }
  | { kind: Exclude<Kind, 'channel'> | 'plan'; id: string }
);

interface AnyRule {
  id: string;
  /** What it looks for in plain words, which is what several of its findings are called together. */
  looksFor: string;
  /** The kinds of records that it is about. */
  about: readonly (Kind | 'plan')[];
  /** What a model must be able to do for the rule to have anything to say; all models where it is not said. */
  applies?(model: Model): boolean;
}

/** A rule of one channel at a time: depends on the channel, the owner of the plan and the model alone, and is not asked again while they stay. */
export interface ChannelRule extends AnyRule {
  findOne(channel: Channel, context: CheckContext): ChannelFinding | undefined;
}

/** Something that a rule of the plan has found. */
export interface Hit {
  /** The places in the plan of the channels that it is about; the finding is said of the first. */
  at: readonly [number, ...number[]];
  /** What is said of it; reads nothing of the plan but those channels. */
  say(channels: readonly Channel[], context: CheckContext): Omit<RuleFinding, 'id'>;
}

/**
 * A rule of how channels stand beside each other. Hits that are the very same as before, of channels that are, are not said
 * again: give the same list while nothing that was read has changed (`asSeen`).
 */
export interface PlanRule extends AnyRule {
  find(context: CheckContext): readonly Hit[];
}

/** A rule of other records than channels, of how channels are wired to them, or of the plan as a whole. Asked again when something changed that it read (`reads.ts`). */
export interface RecordRule extends AnyRule {
  findAll(context: CheckContext): Iterable<RecordFinding>;
}

export type Rule = ChannelRule | PlanRule | RecordRule;

/** A rule that looks at one channel at a time and has at most one thing to say of it. */
export const channelRule = (
  id: string,
  looksFor: string,
  findOne: ChannelRule['findOne'],
  applies?: AnyRule['applies'],
): ChannelRule => ({ id, looksFor, about: ['channel'], findOne, ...(applies && { applies }) });

/** A rule of records. */
export const recordRule = (
  id: string,
  looksFor: string,
  about: AnyRule['about'],
  findAll: RecordRule['findAll'],
  applies?: AnyRule['applies'],
): RecordRule => ({ id, looksFor, about, findAll, ...(applies && { applies }) });

/** The mend that sets fields of one channel. */
export function setMend(channel: Channel, label: string, set: ChannelChange['set']): Mend {
  return { label, edit: { name: 'change', changes: [{ id: channel.id, set }] } };
}

/** The mend that takes a channel out of the plan: another radio may have what it wants. */
export const leaveOut = ({ id }: Channel): Mend => ({
  label: 'Leave it out',
  edit: { name: 'remove', ids: [id] },
});

const MANY: Record<Severity, string> = { stop: 'stops', caution: 'cautions', hint: 'hints' };

/** How many findings there are of each severity, also in words; severities without any are left out. */
export function countFindings(findings: readonly Pick<Finding, 'severity'>[]): FindingCount[] {
  const counts = { stop: 0, caution: 0, hint: 0 };
  for (const { severity } of findings) counts[severity]++;
  return SEVERITIES.map((severity) => ({ severity, n: counts[severity] }))
    .filter(({ n }) => n > 0)
    .map(({ severity, n }) => ({ severity, n, text: `${n} ${n === 1 ? severity : MANY[severity]}` }));
}
