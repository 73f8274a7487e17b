import { createHash } from 'node:crypto';
import { and, asc, desc, eq, sql } from 'drizzle-orm';
import type { Copy, CopyReason, JobResult } from '../core/bench';
import { decodeImage, planOfContent, unitOf } from '../core/image';
import { modelById, type Model } from '../core/models';
import { idsOf, NEW_OWNER, type RadioId } from '../core/plan';
import { copies, copyNotes, jobs, plans, radios, type Database } from '../db';
import { reading, writing } from './database';
import { NOBODY } from './once';
import { createPlan, type KeptPlan } from './plans';
import { notFound, Problem } from './problem';
import { calledOf, radioOf } from './radios';

/** Sealed copies: read-outs that are never changed and never removed. */

const copyFields = {
  id: copies.id,
  radioId: copies.radioId,
  modelId: copies.modelId,
  reason: copies.reason,
  sha256: copies.sha256,
  takenAt: copies.takenAt,
  bytes: sql<number>`length(${copies.image})`,
  note: sql<string>`coalesce(${copyNotes.note}, '')`,
};

/** The copies of a radio, or of all, newest first. */
export async function listCopies(radioId?: RadioId): Promise<Copy[]> {
  const database = await reading();
  const rows = await database
    .select(copyFields)
    .from(copies)
    .leftJoin(copyNotes, eq(copyNotes.copyId, copies.id))
    .where(radioId === undefined ? undefined : eq(copies.radioId, radioId))
    .orderBy(desc(copies.takenAt));
  const { before, after } = await plansWritten(database, radioId);
  return rows.map((row) => ({
    ...row,
    plan:
      (row.reason === 'after write'
        ? after.get(row.id)
        : row.reason === 'before write'
          ? before.get(row.id)
          : null) ?? null,
    takenAt: row.takenAt.toISOString(),
  }));
}

/** The plans that were written to a radio, or to all: by the copy that was sealed before and by the one that was sealed after. */
async function plansWritten(database: Database, radioId: RadioId | undefined) {
  const rows = await database
    .select({ name: plans.name, revision: jobs.planRevision, result: jobs.result })
    .from(jobs)
    .innerJoin(plans, eq(plans.id, jobs.planId))
    .where(and(eq(jobs.state, 'done'), radioId === undefined ? undefined : eq(jobs.radioId, radioId)))
    .orderBy(asc(jobs.startedAt));
  const [before, after] = [new Map<string, Copy['plan']>(), new Map<string, Copy['plan']>()];
  for (const { name, revision, result } of rows) {
    if (revision === null) continue;
    const { copyId, writtenCopyId } = (result ?? {}) as JobResult;
    if (copyId !== undefined) before.set(copyId, { name, revision });
    if (writtenCopyId !== undefined) after.set(writtenCopyId, { name, revision });
  }
  return { before, after };
}

/** Says something of a sealed copy, or nothing any more; the copy itself stays what it is. */
export async function noteCopy(id: string, note: string): Promise<Copy> {
  const database = await writing();
  const { radioId } = await getCopy(id);
  if (note === '') await database.delete(copyNotes).where(eq(copyNotes.copyId, id));
  else
    await database
      .insert(copyNotes)
      .values({ copyId: id, note })
      .onConflictDoUpdate({ target: copyNotes.copyId, set: { note } });
  return (await listCopies(radioId)).find((copy) => copy.id === id)!;
}

/** Seals a read-out. One that is the same, byte for byte, as the newest copy of that radio is not kept twice. */
export async function sealCopy(
  radioId: RadioId,
  model: Model,
  image: Uint8Array,
  reason: Exclude<CopyReason, 'first read'>,
): Promise<string> {
  const database = await writing();
  const facts = unitOf(image, model);
  await database.update(radios).set({ facts }).where(eq(radios.id, radioId));
  const sha256 = createHash('sha256').update(image).digest('hex');
  const [newest] = await listCopies(radioId);
  if (newest?.sha256 === sha256) return newest.id;
  const id = `cp_${sha256.slice(0, 8)}${Date.now().toString(36)}`;
  await database
    .insert(copies)
    .values({ id, radioId, modelId: model.id, reason: newest ? reason : 'first read', sha256, image });
  return id;
}

/** Sealed copies whose bytes do not agree with their digest, by their ids: summed up where they lie. */
export async function damagedCopies(): Promise<string[]> {
  const database = await reading();
  const rows = await database
    .select({ id: copies.id })
    .from(copies)
    .where(sql`encode(sha256(${copies.image}), 'hex') <> ${copies.sha256}`);
  return rows.map(({ id }) => id);
}

/** A sealed copy with its bytes; its digest is held against them. */
export async function getCopy(id: string) {
  const database = await reading();
  const [row] = await database.select().from(copies).where(eq(copies.id, id));
  if (!row) throw notFound(`sealed copy ${id}`);
  const image = new Uint8Array(row.image);
  if (createHash('sha256').update(image).digest('hex') !== row.sha256)
    throw new Error(`The sealed copy ${id} does not agree with its digest`);
  return { ...row, image, called: calledOf(await radioOf(row.radioId)) };
}

/** The newest sealed copy of a radio, or undefined. */
export async function newestCopy(radioId: RadioId) {
  const [newest] = await listCopies(radioId);
  return newest && getCopy(newest.id);
}

/** The newest sealed copy of a radio that can be read as its content: what it is rebuilt from after a write that broke off. */
export async function newestSound(radioId: RadioId, model: Model) {
  for (const { id } of await listCopies(radioId)) {
    const copy = await getCopy(id);
    if (decodeImage(copy.image, model).ok) return copy;
  }
  return undefined;
}

/** Ids for what is read into a new plan. */
const NEW_IDS = idsOf(() => crypto.getRandomValues(new Uint8Array(12)));

/** A new plan with all that a sealed copy holds. */
export async function planFromCopy(id: string, asker = NOBODY): Promise<KeptPlan> {
  const copy = await getCopy(id);
  const model = modelById(copy.modelId)!;
  const decoded = decodeImage(copy.image, model);
  if (!decoded.ok)
    throw new Problem(422, 'copy-unreadable', 'This copy cannot be read as a plan', decoded.reason);
  const lists = planOfContent(decoded.value, model, NEW_IDS);
  const unit = { radio: copy.radioId, called: copy.called, facts: unitOf(copy.image, model) };
  return createPlan(
    { name: `From ${copy.called}`, modelId: model.id, owner: NEW_OWNER },
    { ...lists, unit },
    asker,
    {
      copy: id,
    },
  );
}
