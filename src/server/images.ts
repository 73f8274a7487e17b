import { eq } from 'drizzle-orm';
import { contentToWrite } from '../core/check';
import { blankImage } from '../core/format';
import { byteDifferences, encodeImage, fieldsAt, filesOf, modelOfImage, ownedMask } from '../core/image';
import { formatOf } from '../core/models/formats';
import type { Model } from '../core/models';
import { NEW_OWNER, PLAN_NAME_LIMIT, type PlanId } from '../core/plan';
import { cutText } from '../core/text';
import { images } from '../db';
import { reading } from './database';
import { fileName } from './export';
import { clientOf, NOBODY } from './once';
import { wantModel } from './models';
import { createPlan, getView, type KeptPlan } from './plans';
import { notFound, Problem } from './problem';
import { runReader } from './reader';

/** Radios' images as files: opened as plans, saved again with all that is not ours, looked at byte by byte. */

interface File {
  name: string;
  base64: string;
}

/**
 * Opens an image, or the files of a card, as a new plan with all that it holds. What is damaged is opened with `rescue` alone, as far as
 * it can be read; of that nothing is kept to be saved upon.
 */
export async function openImage(
  { files, rescue }: { files: readonly File[]; rescue: boolean },
  asker = NOBODY,
  gone?: AbortSignal,
): Promise<KeptPlan & { proven: boolean }> {
  const handed = files.map(({ name, base64 }) => ({
    name,
    bytes: new Uint8Array(Buffer.from(base64, 'base64')),
  }));
  const read = await runReader('image', { files: handed, rescue }, { lane: clientOf(asker), gone });
  if (!read.ok) throw new Problem(422, 'image-unknown', 'This image cannot be read', read.reason);
  if (read.value.kind !== 'read') {
    const { kind, title, reason } = read.value;
    throw new Problem(422, kind === 'damaged' ? 'image-damaged' : 'image-unknown', title, reason);
  }
  const { modelId, image, whole, proven, lists } = read.value;
  const [first] = files;
  const stem = files.length === 1 ? first!.name.replace(/\.[^.]*$/, '').trim() : '';
  const name = cutText(stem || `From a ${wantModel(modelId).name}`, PLAN_NAME_LIMIT);
  const kept = await createPlan(
    { name, modelId, owner: NEW_OWNER },
    lists,
    asker,
    { image: files, rescue },
    whole
      ? async (database, planId) => {
          await database.insert(images).values({ planId, modelId, image });
        }
      : undefined,
  );
  return { ...kept, proven };
}

/** The image that a plan was opened of; undefined where it was opened of none, or is for another model now. */
async function imageBehind(id: PlanId, model: Model): Promise<Uint8Array | undefined> {
  const database = await reading();
  const [row] = await database.select().from(images).where(eq(images.planId, id));
  return row?.modelId === model.id ? new Uint8Array(row.image) : undefined;
}

/** The plan's image as it was, and as it is to be. */
async function imagesOf(id: PlanId) {
  const { plan } = await getView(id);
  const model = wantModel(plan.modelId);
  const held = await imageBehind(id, model);
  const format = formatOf(model);
  if (!held && format.container.kind !== 'lines')
    throw new Problem(
      422,
      'no-copy',
      'Nothing to build on',
      `An image of a ${model.name} holds what belongs to one unit: its calibration, its band edges. Open the image of that unit, and save it again from the plan that it makes; or read the radio on the Bench.`,
    );
  const before = held ?? blankImage(format);
  // Of a card's files in which nothing stands yet nothing is known of a unit.
  const { heldBack, ...content } = contentToWrite(plan, modelOfImage(before, model, 'this unit'));
  return { plan, model, before, after: encodeImage(content, before, model), heldBack: heldBack.length };
}

/** The files as which a plan's image is saved, and how many channels a stop keeps out of it. */
export async function imageFiles(id: PlanId) {
  const { model, after, heldBack } = await imagesOf(id);
  return {
    model: model.name,
    heldBack,
    files: filesOf(after, model).map(({ name, bytes }) => ({ part: name ?? null, bytes: bytes.length })),
  };
}

/** One of those files: the whole image, or the named part of a card. */
export async function imageFile(id: PlanId, part?: string) {
  const { plan, model, after } = await imagesOf(id);
  const files = filesOf(after, model);
  const file = files.find(({ name }) => name === part) ?? (files.length === 1 ? files[0] : undefined);
  if (!file) throw notFound(`file ${part ?? ''} of a card of the ${model.name}`);
  return {
    file: file.bytes,
    type: 'application/octet-stream',
    name: file.name ?? fileName(plan.name, `${model.id}.bin`),
  };
}

/** Most places of changed bytes that one answer names. */
const MOST_CHANGES = 4096;

/** Bytes that one answer shows. */
export const BYTES_AT_ONCE = 2048;

const hex = (bytes: Uint8Array) => Buffer.from(bytes).toString('hex');

/** A stretch of a plan's image byte by byte: as it is, as it will be, which bits are ours, and what each belongs to. */
export async function imageBytes(id: PlanId, from: number) {
  const { model, before, after } = await imagesOf(id);
  const start = Math.min(from, Math.max(0, before.length - 1)) & ~15;
  const end = Math.min(before.length, start + BYTES_AT_ONCE);
  const mask = ownedMask(model).subarray(start, end);
  const { at: changed, areas } = byteDifferences(before, after, model);
  return {
    length: before.length,
    from: start,
    changed: changed.length,
    changes: changed.slice(0, MOST_CHANGES),
    areas,
    before: hex(before.subarray(start, end)),
    after: hex(after.subarray(start, end)),
    ours: hex(mask),
    fields: [...fieldsAt(model, start, end)].map(([at, label]) => ({ at, label })),
  };
}
