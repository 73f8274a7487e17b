import type { ImportAnswer } from '../api';
import { makeId, NEW_OWNER, newPlan, PLAN_NAME_LIMIT, type Plan, type PlanId } from '../core/plan';
import { cutText } from '../core/text';
import type { RowsTold } from '../reader/stations';
import { clientOf, NOBODY, type Asker } from './once';
import { wantModel } from './models';
import { createPlan, getPlan } from './plans';
import { Problem } from './problem';
import { runReader } from './reader';
import { receiptOfEdit } from './documents/receipts';
import { editPlan } from './revisions';

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

const called = (name: string) => cutText(name.trim(), PLAN_NAME_LIMIT) || 'From a file';

/** What a file comes to in a plan, read outside of the server's thread. */
async function readInto(wish: ImportWish, into: Plan | null, asker: Asker, gone?: AbortSignal) {
  const bytes = new Uint8Array(Buffer.from(wish.base64, 'base64'));
  const asked = { bytes, into, slots: wish.slots };
  const read = await runReader('stations', asked, { lane: clientOf(asker), gone });
  if (!read.ok) throw new Problem(422, 'unreadable', 'The file cannot be read', read.reason);
  return read.value;
}

/**
 * Takes the stations of a file into a plan, as the page does it: what is understood goes in as one edit, what finds no slot is left over,
 * and what is not understood is answered with its line and reason. Without a plan a new one comes about: of a plan of ours all that it
 * holds, of any other file one for the model that is named.
 */
export async function importFile(
  wish: ImportWish,
  asker: Asker = NOBODY,
  gone?: AbortSignal,
): Promise<ImportAnswer> {
  const { plan: id } = wish;
  if (id === undefined) return asNewPlan(wish, asker, gone);
  const request = { import: wish };
  const before = await receiptOfEdit<RowsTold>(id, request, asker);
  if (before) return { plan: id, ...before.answer, ...before.note };
  const { plan, revision } = await getPlan(id);
  wantModel(plan.modelId);
  const read = await readInto(wish, plan, asker, gone);
  if (read.kind !== 'rows') throw new Error('What goes into a plan is rows.');
  const { edit, told } = read;
  if (!edit) return { plan: id, revision, label: null, ...told };
  const kept = await editPlan(id, revision, edit, asker, { request, note: told });
  return { plan: id, revision: kept.revision, label: kept.label, ...told };
}

async function asNewPlan(wish: ImportWish, asker: Asker, gone?: AbortSignal): Promise<ImportAnswer> {
  const { base64, modelId, name, slots } = wish;
  const request = { import: base64, modelId, name, slots };
  const label = 'Opened from a file';
  const details = { name: called(name ?? 'From a file'), modelId: modelId ?? '', owner: NEW_OWNER };
  if (modelId !== undefined) wantModel(modelId);
  const empty = modelId === undefined ? null : newPlan(makeId('pl', new Uint8Array(12)), details);
  const read = await readInto(wish, empty, asker, gone);
  if (read.kind === 'plan') {
    const { name: own, modelId: ownModel, owner, format: _, id: _id, ...from } = read.plan;
    // Of what it was made, and what was looked at, is of the Veridon that it came from.
    const kept = await createPlan(
      { name: called(name ?? own), modelId: modelId ?? ownModel, owner },
      { ...from, origin: null, lookedAt: {} },
      asker,
      request,
    );
    const placed = kept.plan.channels.length;
    return { plan: kept.plan.id, revision: kept.revision, label, placed, over: 0, odd: [], refused: [] };
  }
  if (read.kind === 'no plan named')
    throw new Problem(
      422,
      'no-model',
      'For which radio?',
      'This file is no plan of its own. Name the plan that it goes into, or as modelId the radio that a new one is for.',
    );
  const { filled, told } = read;
  if (!filled)
    throw new Problem(
      422,
      'unreadable',
      'No channel came of the file',
      told.refused[0]
        ? `Line ${told.refused[0].line}: ${told.refused[0].reason}`
        : 'There is no row with a frequency in it.',
    );
  const kept = await createPlan(details, filled, asker, request);
  return { plan: kept.plan.id, revision: kept.revision, label, ...told };
}
