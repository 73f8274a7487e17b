import { z } from 'zod';
import type { FileAnswer } from '../api';
import { standalone } from '../core/document';
import { channelOf, stationsOf } from '../core/directory';
import { OUT_NAMES, planOf, type OutFormat, type Outgoing } from '../core/interchange';
import { MODELS } from '../core/models';
import { USUAL_REGION } from '../core/radio';
import {
  NEW_OWNER,
  makeId,
  newPlan,
  PLAN_STRUCTURE,
  planSchema,
  type ChannelId,
  type Plan,
  type PlanId,
} from '../core/plan';
import { computeInThread } from './compute-thread';
import { getView } from './plans';
import { Problem } from './problem';
import { readStations } from './stations';

/** A name that is safe in a Content-Disposition header and on every file system. */
export function fileName(name: string, ending: string): string {
  const base = name
    .normalize('NFD')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .toLowerCase();
  return `${base || 'plan'}.${ending}`;
}

async function fileOf(plan: Plan, channels: readonly Outgoing[], format: OutFormat): Promise<FileAnswer> {
  return {
    file:
      format === 'json'
        ? JSON.stringify(plan, null, 2)
        : await computeInThread('write', { format, channels, name: plan.name }),
    type: OUT_NAMES[format].type,
    name: fileName(plan.name, format),
  };
}

/** A plan as a file, whole or some of its channels. */
export async function exportPlan(
  id: PlanId,
  format: OutFormat,
  ids?: readonly ChannelId[],
): Promise<FileAnswer> {
  const { plan: view } = await getView(id);
  // In a file of its own there is nothing that it could use.
  const plan = standalone(PLAN_STRUCTURE, view);
  const some = ids === undefined ? plan : planOf(plan, new Set(ids));
  if (ids !== undefined && some.channels.length === 0)
    throw new Problem(422, 'refused', 'Nothing to write', 'None of these channels is in the plan any more.');
  return fileOf(some, some.channels, format);
}

/** Stations that are kept as a file, as the channels that they would become; of those that are gone there is nothing. */
export async function exportStations(
  keys: readonly { source: string; ref: string }[],
  format: OutFormat,
  name: string,
): Promise<FileAnswer> {
  const found = stationsOf(await readStations(keys));
  const order = new Map(keys.map(({ source, ref }, at) => [`${source} ${ref}`, at]));
  const placeOf = ({ source, entry }: (typeof found)[number]) =>
    order.get(`${source} ${entry.ref}`) ?? Infinity;
  const channels = [...found]
    .sort((a, b) => placeOf(a) - placeOf(b))
    .flatMap(({ source, entry }) => {
      const made = channelOf(entry, source, '{name}', USUAL_REGION, 4000);
      return made.ok ? [{ ...made.value, id: makeId('ch', crypto.getRandomValues(new Uint8Array(12))) }] : [];
    });
  // A search is for no radio: the one that holds the most leaves the fewest over.
  const model = MODELS.reduce((most, one) => (one.slots.count > most.slots.count ? one : most));
  const empty = newPlan(makeId('pl', crypto.getRandomValues(new Uint8Array(12))), {
    name,
    modelId: model.id,
    owner: NEW_OWNER,
  });
  const { first, count } = model.slots;
  const plan = {
    ...empty,
    channels: channels.slice(0, count).map((channel, n) => ({ ...channel, list: 0, slot: first + n })),
    leftOver: channels.slice(count),
  };
  return fileOf(plan, channels, format);
}

/** What a plan's own format is, as JSON Schema (2020-12). */
export const planJsonSchema = (): Record<string, unknown> => ({
  ...z.toJSONSchema(planSchema, { io: 'output', unrepresentable: 'any' }),
});
