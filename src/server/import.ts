import type { ImportAnswer } from '../api';
import { channelsIn, readFile, type FileContent } from '../core/interchange';
import { receiveRanges, slotRanges, type Model } from '../core/models';
import { NEW_OWNER, applyEdit, makeId, newPlan, PLAN_NAME_LIMIT, type Plan, type PlanId } from '../core/plan';
import { cutText } from '../core/text';
import { placeInSlots, placeWhatFits, type NewRows, type Placing } from '../core/table';
import { NOBODY, type Asker } from './once';
import { createPlan, getPlan, wantModel } from './plans';
import { Problem } from './problem';
import { editPlan } from './revisions';

const newId = () => makeId('ch', crypto.getRandomValues(new Uint8Array(12)));

/** What is asked for: a file into a plan, or as a new one. */
export interface ImportWish {
  base64: string;
  /** Into which plan; without one a new plan comes about. */
  plan?: PlanId;
  /** The new plan's model, where the file is no plan that has one. */
  modelId?: string;
  name?: string;
  /** Where the channels go: into the slots that the file names, as far as they are free, or the next free ones. */
  slots: 'as in the file' | 'next free';
}

/** What a file comes to on a radio, and how it is placed into a plan for it. */
function incoming(
  content: FileContent,
  plan: Plan,
  model: Model,
  slots: ImportWish['slots'],
): { made: NewRows; placing: Placing | null } {
  const context = { region: plan.owner.region, bands: receiveRanges(model), powers: model.powers };
  const made = channelsIn(content, context, newId);
  if (made.channels.length === 0) return { made, placing: null };
  const lists = slotRanges(model);
  const { list, range } = lists[0]!;
  return {
    made,
    placing:
      slots === 'as in the file' && made.slots.size > 0
        ? placeInSlots(plan, made.channels, made.slots, lists)
        : placeWhatFits(plan, made.channels, { placement: 'next-free', at: range.first, range, list }),
  };
}

function answered(made: NewRows, placing: Placing | null): Omit<ImportAnswer, 'plan' | 'revision' | 'label'> {
  const nameOf = new Map(made.channels.map((channel) => [channel.id, channel.name]));
  return {
    placed: placing?.placed ?? 0,
    over: placing?.over ?? 0,
    odd: made.odd.map(({ id, ...rest }) => ({ channel: nameOf.get(id) ?? '', ...rest })),
    refused: made.refused,
  };
}

/**
 * Takes the stations of a file into a plan, as the page does it: what is understood goes in as one edit, what finds no slot is left over,
 * and what is not understood is answered with its line and reason. Without a plan a new one comes about: of a plan of ours all that it
 * holds, of any other file one for the model that is named.
 */
export async function importFile(wish: ImportWish, asker: Asker = NOBODY): Promise<ImportAnswer> {
  const { base64, plan: id, slots } = wish;
  const read = await readFile(new Uint8Array(Buffer.from(base64, 'base64')));
  if (!read.ok) throw new Problem(422, 'unreadable', 'The file cannot be read', read.reason);
  if (id === undefined) return asNewPlan(read.value, wish, asker);
  const { plan, revision } = await getPlan(id);
  const { made, placing } = incoming(read.value, plan, wantModel(plan.modelId), slots);
  if (!placing) return { plan: id, revision, label: null, ...answered(made, null) };
  const kept = await editPlan(id, revision, placing.edit, asker);
  return { plan: id, revision: kept.revision, label: kept.label, ...answered(made, placing) };
}

async function asNewPlan(content: FileContent, wish: ImportWish, asker: Asker): Promise<ImportAnswer> {
  const { base64, modelId, name, slots } = wish;
  const request = { import: base64, modelId, name, slots };
  const label = 'Opened from a file';
  if (content.kind === 'plan') {
    const { name: own, modelId: ownModel, owner, format: _, id: _id, ...from } = content.plan;
    const details = { name: called(name ?? own), modelId: modelId ?? ownModel, owner };
    // Of what it was made, and what was looked at, is of the Veridon that it came from.
    const kept = await createPlan(details, { ...from, origin: null, lookedAt: {} }, asker, request);
    const placed = kept.plan.channels.length;
    return { plan: kept.plan.id, revision: kept.revision, label, placed, over: 0, odd: [], refused: [] };
  }
  if (modelId === undefined)
    throw new Problem(
      422,
      'no-model',
      'For which radio?',
      'This file is no plan of its own. Name the plan that it goes into, or as modelId the radio that a new one is for.',
    );
  const details = { name: called(name ?? 'From a file'), modelId, owner: NEW_OWNER };
  const model = wantModel(modelId);
  const { made, placing } = incoming(
    content,
    newPlan(makeId('pl', new Uint8Array(12)), details),
    model,
    slots,
  );
  if (!placing)
    throw new Problem(
      422,
      'unreadable',
      'No channel came of the file',
      made.refused[0]
        ? `Line ${made.refused[0].line}: ${made.refused[0].reason}`
        : 'There is no row with a frequency in it.',
    );
  const empty = newPlan(makeId('pl', new Uint8Array(12)), details);
  const filled = applyEdit(empty, placing.edit);
  if (!filled.ok) throw new Problem(422, 'no-plan', 'This makes no plan', filled.reason);
  const { channels, leftOver } = filled.value;
  const kept = await createPlan(details, { channels, leftOver }, asker, request);
  return { plan: kept.plan.id, revision: kept.revision, label, ...answered(made, placing) };
}

const called = (name: string) => cutText(name.trim(), PLAN_NAME_LIMIT) || 'From a file';
