import { and, eq, inArray } from 'drizzle-orm';
import type { Edit, PlanId } from '../core/plan';
import { changes, revisions, type Database } from '../db';
import { reading } from './database';
import { keyUsed, receiptOf, type Asker } from './once';
import { wordsOfLabel } from './labels';
import { editsBetween, labelOf } from './plan-log';
import { wantRow } from './plan-rows';

/** What changes of plans answer, and what is kept of them so that one that is sent again is answered again. */

/**
 * What a change answers. `edits` is there where the sender's own edit on the revision that it names is not all that has come
 * about: all edits from that revision to this one, which bring its plan along.
 */
export interface ChangeAnswer {
  revision: number;
  label: string;
  undo: string | null;
  redo: string | null;
  edits?: Edit[];
}

/** Most edits that an answer brings somebody along by; who is further behind loads the plan. */
const MOST_EDITS = 200;

/** What the answer to a change is made of again: the revision that it made, and from where its sender is brought along. */
export interface Receipt {
  revision: number;
  answerFrom: number | null;
  /** What else is answered again. */
  note?: unknown;
}

/** The answer that a change got when it was first sent; undefined where its key is new. */
export async function answeredBefore(
  database: Database,
  id: PlanId,
  { key }: Asker,
  request: string,
): Promise<ChangeAnswer | undefined> {
  if (key === null) return undefined;
  const [known] = await database.select().from(changes).where(eq(changes.key, key));
  if (!known) return undefined;
  if (known.request !== request) throw keyUsed(key);
  // A receipt of an older Veridon says of an answer with the whole plan: the edit itself does for that.
  const { revision, answerFrom = revision - 1 } = known.receipt as Partial<Receipt> & { revision: number };
  const row = await wantRow(database, id);
  const own = await database
    .select()
    .from(revisions)
    .where(and(eq(revisions.planId, id), inArray(revisions.revision, [revision, revision + 1])));
  const made = own.find((one) => one.revision === revision)!;
  // What undo and redo would have done then is what the next revision found before itself.
  const next = own.find((one) => one.revision === revision + 1);
  return {
    revision,
    label: wordsOfLabel(made),
    undo: await labelOf(database, id, next ? next.beforeUndo : row.undoHead),
    redo: await labelOf(database, id, next ? next.beforeRedo : row.redoHead),
    ...(await broughtAlong(database, id, answerFrom, revision)),
  };
}

/** What an edit of which the request is not the edit itself answered before, with its note; undefined where its key is new. */
export async function receiptOfEdit<N>(
  id: PlanId,
  request: unknown,
  asker: Asker,
): Promise<{ answer: { revision: number; label: string }; note: N } | undefined> {
  const database = await reading();
  const kept = await receiptOf<Receipt>(database, asker, { id, request });
  if (!kept) return undefined;
  const { revision, note } = kept;
  const [made] = await database
    .select({ label: revisions.label, labelParts: revisions.labelParts })
    .from(revisions)
    .where(and(eq(revisions.planId, id), eq(revisions.revision, revision)));
  return { answer: { revision, label: wordsOfLabel(made!) }, note: note as N };
}

/** The edits that bring somebody along, where there are any and not too many. */
export async function broughtAlong(database: Database, id: PlanId, from: number | null, revision: number) {
  if (from === null || revision - from > MOST_EDITS) return {};
  return { edits: await editsBetween(database, id, from, revision) };
}
