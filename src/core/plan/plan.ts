import { CHANNEL_LIMIT, SLOT_LIMIT } from './channel';
import type { Channel } from './channel.schema';
import { emptyLists } from './kinds';
import { ABBREVIATIONS, type Abbreviations } from './abbreviations';
import { NOT_STATED, USUAL_REGION } from '../radio';
import type { Owner, PlanDetails, PlanHead, Plan } from './plan.schema';

export const PLAN_NAME_LIMIT = 60;

/** The owner of a plan of which nobody has said whose it is. */
export const NEW_OWNER: Owner = { callSign: '', region: USUAL_REGION, grade: NOT_STATED, strict: false };

export const HEAD_FIELDS = [
  'name',
  'modelId',
  'owner',
  'abbreviations',
  'settings',
  'origin',
  'lookedAt',
  'unit',
  'uses',
] as const;

/** The format of plan documents that is written; older ones are read, see `readDocument`. */
export const FORMAT = 3;

/** Most plans made of one of which it is kept up to which revision they were looked at. */
export const LOOKED_AT_LIMIT = 100;

/** Most models for which a plan has settings, and most settings of one. */
export const SETTINGS_LIMITS = { models: 32, each: 200 };

/** An empty plan. */
export function newPlan(id: Plan['id'], details: PlanDetails): Plan {
  return {
    format: FORMAT,
    id,
    ...details,
    abbreviations: null,
    settings: {},
    origin: null,
    lookedAt: {},
    unit: null,
    uses: [],
    ...emptyLists(),
  };
}

/** What of a plan is not records. */
export const headOf = ({
  name,
  modelId,
  owner,
  abbreviations,
  settings,
  origin,
  lookedAt,
  unit,
  uses,
}: PlanHead): PlanHead => ({
  name,
  modelId,
  owner,
  abbreviations,
  settings,
  origin,
  lookedAt,
  unit,
  uses,
});

/** The short forms that the plan's names are fitted with. */
export function abbreviationsOf(plan: Pick<Plan, 'abbreviations'>): Abbreviations {
  return plan.abbreviations ?? ABBREVIATIONS;
}

/** By list, then by slot. */
export const bySlot = (a: Channel, b: Channel) => a.list - b.list || a.slot - b.slot;

/** The channels in slot order, ids and slots unique, no more and no higher than a plan holds; or what is wrong with them. */
export function orderedChannels(channels: readonly Channel[]): Channel[] | string {
  if (channels.length > CHANNEL_LIMIT)
    return `A plan holds ${CHANNEL_LIMIT} channels at most; this would make ${channels.length}.`;
  const sorted = [...channels].sort(bySlot);
  const ids = new Set<string>();
  for (const [index, channel] of sorted.entries()) {
    if (channel.slot > SLOT_LIMIT)
      return `Slot ${channel.slot} is over ${SLOT_LIMIT}, the highest that a plan has.`;
    if (ids.has(channel.id)) return `The channel ${channel.id} would be there twice.`;
    ids.add(channel.id);
    const before = sorted[index - 1];
    if (before && bySlot(before, channel) === 0)
      return `Slot ${channel.slot} is taken by “${before.name || channel.name || 'a channel without a name'}”.`;
  }
  return sorted;
}
