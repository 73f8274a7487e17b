import { and, asc, eq, ne } from 'drizzle-orm';
import { alikeIn, inverseBetween, rebaseOn, type AnyDocument } from '../../core/document';
import { revisions, type Database } from '../../db';
import { reading, writing } from '../database';
import { inSteps, letOthers } from '../in-steps';
import { NOBODY, requestDigest } from '../once';
import { editRefused, Problem } from '../problem';
import { answerOf, change, changeOne, More, type Step } from './change';
import { heldAt, holdEarlier, type Held } from './held';
import { partsOfLabel } from './labels';
import { documentAt } from './log';
import { answeredSeveral, type ChangeAnswer } from './receipts';
import { wantRow } from './rows';
import { typeOf } from './types';

/** The changes of documents: an edit, edits of several documents at once, undo and redo, going back. */

/** An edit that was made further back than this is refused: finding out whether it still holds would keep others waiting. */
const FAR_BACK = 2000;
/** What a change is known again by, where that is not the edit itself, and what is kept to be answered again. */
export interface Known {
  request: unknown;
  note: unknown;
}

/** The document on which an edit was made, where that is not the newest any more. */
async function baseOf(database: Database, id: string, base: number, revision: number): Promise<AnyDocument> {
  const { word } = typeOf(id).shape;
  if (revision - base > FAR_BACK)
    throw new Problem(
      409,
      'stale-edit',
      'Made too long ago',
      `This was made on revision ${base}; the ${word} is at ${revision}. Load the ${word} again and look at it.`,
      { revision },
    );
  const known = heldAt(id, base);
  if (known) return known;
  // Who makes one edit on it is likely to make the next on it too.
  const document = await documentAt(database, id, base);
  holdEarlier(id, base, document);
  return document;
}

/** The step that an edit is. One that was made on an old revision is run again on the newest where it still holds, and refused with a reason where not. */
async function editStep<E extends object>(
  database: Database,
  { document, revision }: Held,
  { base, edit }: { base: number; edit: E },
): Promise<Step> {
  const { id } = document;
  const type = typeOf<AnyDocument, E>(id);
  const { word } = type.shape;
  if (base > revision)
    throw new Problem(
      409,
      'unknown-revision',
      'No such revision',
      `The ${word} is at revision ${revision}; the edit says ${base}. Load the ${word} again.`,
    );
  const stale = base < revision;
  const result = stale
    ? rebaseOn(type, edit, { base: await baseOf(database, id, base, revision), newest: document })
    : type.apply(document, edit);
  if (!result.ok) {
    const [status, kind, title] = stale
      ? ([409, 'stale-edit', 'Changed meanwhile'] as const)
      : ([422, 'edit-refused', 'This cannot be done'] as const);
    throw new Problem(status, kind, title, result.reason, { revision });
  }
  return {
    ...{ kind: 'edit', edit, label: type.label(edit, document), after: result.value },
    undoHead: (next) => next,
    redoHead: () => null,
    answerFrom: stale ? base : null,
  };
}

/**
 * Appends an edit to the log of a document. Once this has answered, the edit is on disk.
 */
export function editDocument<E extends object>(
  id: string,
  base: number,
  edit: E,
  asker = NOBODY,
  known?: Known,
): Promise<ChangeAnswer<E>> {
  const asked = known?.request ?? { base, edit };
  return changeOne<E>({
    ...{ ids: [id], asker, note: known?.note, request: requestDigest({ id, request: asked }) },
    work: async (database, [newest]) => [await editStep(database, newest!, { base, edit })],
  });
}

/** An edit of one of several documents, made on one of its revisions. */
export interface EditOf {
  id: string;
  base: number;
  edit: object;
}

/** What a change of several documents answers of one of them. */
export type AnswerOf = { id: string } & ChangeAnswer;

/** Changes several documents at once: all of them, or none. Undo in one of them undoes it in all. */
export async function editSeveral(edits: readonly EditOf[], asker = NOBODY): Promise<AnswerOf[]> {
  if (new Set(edits.map(({ id }) => id)).size < edits.length || edits.length === 0)
    throw editRefused('A change of several documents has one edit for each of them.');
  const request = requestDigest({ several: edits });
  const database = await writing();
  const all = await change({
    ...{ ids: edits.map(({ id }) => id), asker, request },
    async work(_, newest) {
      const steps: Step[] = [];
      for (const [at, one] of edits.entries()) steps.push(await editStep(database, newest[at]!, one));
      return steps;
    },
  });
  if (!all) return answeredSeveral(database, asker, request);
  const answers: AnswerOf[] = [];
  for (const one of all) answers.push({ id: one.held.document.id, ...(await answerOf(database, one)) });
  return answers;
}

type Log = typeof revisions.$inferSelect;

/** The revisions that undo would take back, or redo bring back: that of the document, and those that the same change made of others. */
async function targetsOf(
  database: Database,
  kind: 'undo' | 'redo',
  id: string,
  newest: readonly Held[],
): Promise<Log[]> {
  const { undoHead, redoHead } = newest[0]!;
  const head = kind === 'undo' ? undoHead : redoHead;
  if (head === null)
    throw new Problem(
      409,
      `nothing-to-${kind}`,
      `Nothing to ${kind}`,
      kind === 'undo' ? 'Nothing has been changed yet.' : 'Nothing has been undone.',
    );
  const [target] = await database
    .select()
    .from(revisions)
    .where(and(eq(revisions.documentId, id), eq(revisions.revision, head)));
  if (target!.changeId === null) return [target!];
  const others = await database
    .select()
    .from(revisions)
    .where(and(eq(revisions.changeId, target!.changeId), ne(revisions.documentId, id)))
    .orderBy(asc(revisions.documentId));
  const all = [target!, ...others];
  if (all.length !== newest.length) throw new More(all.map(({ documentId }) => documentId));
  return all;
}

/** The step that takes a revision back, or an undo. Refused where another one came after it. */
async function backStep(
  { document, revision, undoHead, redoHead }: Held,
  kind: 'undo' | 'redo',
  target: Log,
): Promise<Step> {
  const { id, name } = document;
  const type = typeOf(id);
  if ((kind === 'undo' ? undoHead : redoHead) !== target.revision)
    throw new Problem(
      409,
      'stale-edit',
      'Changed meanwhile',
      `This change was made to several documents at once, and “${name}” was changed after it. Nothing was changed; ${kind} the later changes there first.`,
    );
  const edit = await inSteps(type.readingEdit(target.inverse));
  await letOthers();
  const result = type.apply(document, edit);
  if (!result.ok)
    throw new Error(`The log of ${id} does not lead back from ${target.revision}: ${result.reason}`);
  return {
    ...{ kind, edit, label: partsOfLabel(target), after: result.value, answerFrom: revision },
    undoHead: (next) => (kind === 'undo' ? target.beforeUndo : next),
    redoHead: (next) => (kind === 'undo' ? next : target.beforeRedo),
  };
}

/**
 * Takes the last edit back, or the last undo: a revision of its own, so that the log only ever grows. What one change made of several documents is
 * taken back in all of them, or in none. `base` is the revision
 * that its sender has, from which the answer brings it along; the newest where it is not said.
 */
export function stepBackIn<E extends object>(
  id: string,
  kind: 'undo' | 'redo',
  asker = NOBODY,
  base?: number,
): Promise<ChangeAnswer<E>> {
  return changeOne<E>({
    ...{ ids: [id], asker, request: requestDigest({ id, request: kind }) },
    async work(database, newest) {
      const targets = await targetsOf(database, kind, id, newest);
      const steps: Step[] = [];
      for (const [at, target] of targets.entries()) steps.push(await backStep(newest[at]!, kind, target));
      const { revision } = newest[0]!;
      return steps.with(0, { ...steps[0]!, answerFrom: Math.min(base ?? revision, revision) });
    },
  });
}

/**
 * Makes a document again what it was at an earlier revision: a revision of its own, which undo takes back like any other.
 * Refused where the document is not at `base` any more, since what came since would be lost unseen.
 */
export async function goBackIn<E extends object>(
  id: string,
  base: number,
  revision: number,
  asker = NOBODY,
): Promise<ChangeAnswer<E>> {
  const type = typeOf(id);
  const { word } = type.shape;
  // Found before its turn comes: the log does not change behind us, and a long one keeps nobody waiting.
  const reader = await reading();
  const then = await wantRow(reader, id);
  const wanted =
    base === then.revision && revision < base ? await documentAt(reader, id, revision) : undefined;
  return changeOne<E>({
    ...{ ids: [id], asker, request: requestDigest({ id, request: { base, revision } }) },
    async work(database, [held]) {
      const newest = held!;
      if (base !== newest.revision)
        throw new Problem(
          409,
          'stale-edit',
          'Changed meanwhile',
          `The ${word} was changed meanwhile: it is at revision ${newest.revision}. Look at it and try again.`,
          { revision: newest.revision },
        );
      if (revision >= newest.revision)
        throw new Problem(
          422,
          'unknown-revision',
          'No earlier revision',
          `The ${word} is at revision ${newest.revision}; name an earlier one to go back to.`,
        );
      // What came out of the log may be alike without being the same: the changed records are what differs.
      const found = wanted ?? (await documentAt(database, id, revision));
      const edit = inverseBetween(type, alikeIn(type.shape, newest.document, found), newest.document);
      const result = type.apply(newest.document, edit);
      if (!result.ok) throw new Error(`${id} cannot be made what it was at ${revision}: ${result.reason}`);
      const label = { of: 'go back', revision };
      return [
        {
          ...{ kind: 'edit', edit, label, after: result.value, answerFrom: base },
          undoHead: (next) => next,
          redoHead: () => null,
        },
      ];
    },
  });
}
