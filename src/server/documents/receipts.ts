import { and, eq, inArray } from 'drizzle-orm';
import { changes, revisions, type Database } from '../../db';
import { reading } from '../database';
import { keyUsed, receiptOf, type Asker } from '../once';
import { wordsOfLabel } from './labels';
import { editsBetween, labelOf } from './log';
import { wantRow } from './rows';

/** What changes of documents answer, and what is kept of them so that one that is sent again is answered again. */

/**
 * What a change answers. `edits` is there where the sender's own edit on the revision that it names is not all that has come
 * about: all edits from that revision to this one, which bring its document along.
 */
export interface ChangeAnswer<E extends object = object> {
  revision: number;
  label: string;
  undo: string | null;
  redo: string | null;
  edits?: E[];
}

/** Most edits that an answer brings somebody along by; who is further behind loads the document. */
const MOST_EDITS = 200;

/** What the answer to a change is made of again: the revision that it made, and from where its sender is brought along. */
export interface Receipt {
  revision: number;
  answerFrom: number | null;
  /** Where the change was of several documents: what each of them got, by its id. */
  several?: [id: string, receipt: Receipt][];
  /** What else is answered again. */
  note?: unknown;
}

/** The receipt of a change that was made before; undefined where its key is new. Throws for a key that belongs to another change. */
async function receiptFor(database: Database, { key }: Asker, request: string): Promise<Receipt | undefined> {
  if (key === null) return undefined;
  const [known] = await database.select().from(changes).where(eq(changes.key, key));
  if (!known) return undefined;
  if (known.request !== request) throw keyUsed(key);
  return known.receipt as Receipt;
}

/** True where a change was made before. Throws for a key that belongs to another change. */
export const wasMade = async (database: Database, asker: Asker, request: string): Promise<boolean> =>
  (await receiptFor(database, asker, request)) !== undefined;

/** The answer that a change got when it was first sent; undefined where its key is new. */
export async function answeredBefore<E extends object>(
  database: Database,
  id: string,
  asker: Asker,
  request: string,
): Promise<ChangeAnswer<E> | undefined> {
  const receipt = await receiptFor(database, asker, request);
  return receipt && answerAgain<E>(database, id, receipt);
}

/** The answers that a change of several documents got when it was first sent. */
export async function answeredSeveral(
  database: Database,
  asker: Asker,
  request: string,
): Promise<({ id: string } & ChangeAnswer)[]> {
  const receipt = await receiptFor(database, asker, request);
  const answers: ({ id: string } & ChangeAnswer)[] = [];
  for (const [id, own] of receipt?.several ?? [])
    answers.push({ id, ...(await answerAgain(database, id, own)) });
  return answers;
}

/** The answer of which a receipt was kept. */
async function answerAgain<E extends object>(
  database: Database,
  id: string,
  receipt: Receipt,
): Promise<ChangeAnswer<E>> {
  // A receipt of an older Veridon says of an answer with the whole plan: the edit itself does for that.
  const { revision, answerFrom = revision - 1 } = receipt as Partial<Receipt> & { revision: number };
  const row = await wantRow(database, id);
  const own = await database
    .select()
    .from(revisions)
    .where(and(eq(revisions.documentId, id), inArray(revisions.revision, [revision, revision + 1])));
  const made = own.find((one) => one.revision === revision)!;
  // What undo and redo would have done then is what the next revision found before itself.
  const next = own.find((one) => one.revision === revision + 1);
  return {
    revision,
    label: wordsOfLabel(made),
    undo: await labelOf(database, id, next ? next.beforeUndo : row.undoHead),
    redo: await labelOf(database, id, next ? next.beforeRedo : row.redoHead),
    ...(await broughtAlong<E>(database, id, answerFrom, revision)),
  };
}

/** What an edit of which the request is not the edit itself answered before, with its note; undefined where its key is new. */
export async function receiptOfEdit<N>(
  id: string,
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
    .where(and(eq(revisions.documentId, id), eq(revisions.revision, revision)));
  return { answer: { revision, label: wordsOfLabel({ documentId: id, ...made! }) }, note: note as N };
}

/** The edits that bring somebody along, where there are any and not too many. */
export async function broughtAlong<E extends object>(
  database: Database,
  id: string,
  from: number | null,
  revision: number,
): Promise<{ edits?: E[] }> {
  if (from === null || revision - from > MOST_EDITS) return {};
  return { edits: await editsBetween<E>(database, id, from, revision) };
}
