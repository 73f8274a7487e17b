import {
  differenceOf,
  outcomeFault,
  usesOf,
  type AnyDocument,
  type DocumentDifference,
} from '../../core/document';
import type { Stepwise } from '../../core/stepwise';
import type { Database } from '../../db';
import { writing } from '../database';
import { inSteps, letOthers } from '../in-steps';
import type { Asker } from '../once';
import { editRefused, Problem } from '../problem';
import { giveSpaceBack } from '../space';
import { announce } from '../watch';
import { heldNewest, hold, letGo, type Held } from './held';
import { wordsOfLabel } from './labels';
import { keepSnapshot, labelOf } from './log';
import { answeredBefore, broughtAlong, wasMade, type ChangeAnswer, type Receipt } from './receipts';
import { allRows, headColumns, loadDocument, rowChanges, wantRow } from './rows';
import { keepSteps, type StepToKeep } from './steps';
import { inTurn } from './turns';
import { savedTypeOf, typeOf } from './types';
import { wantUsed, type Coming } from './uses';

/** How a change of one document, or of several at once, is worked out, saved and answered. `revisions.ts` has the changes there are. */

/** A change that has been worked out on the newest revision, and is to be kept as the next. */
export interface Step {
  kind: 'edit' | 'undo' | 'redo';
  edit: object;
  label: object;
  after: AnyDocument;
  undoHead: (revision: number) => number | null;
  redoHead: (revision: number) => number | null;
  /** The revision from which the answer brings its sender along; null where it has all there is. */
  answerFrom: number | null;
}

/** Most that a document may have, bytes of JSON; a full radio of 3,600 channels takes 2 MB. */
const LONGEST = 4_000_000;

/** Records that are measured in one step. */
const STEP = 100;

/** How long the document is as JSON after a change: by what is put instead of what, and what is gone. */
function* bytesAfter(
  before: Held,
  { records }: DocumentDifference,
  back: DocumentDifference,
): Stepwise<number> {
  let { bytes } = before;
  for (const kind of new Set([...Object.keys(records), ...Object.keys(back.records)])) {
    // What leads back puts what was there before.
    for (const [sign, put] of [
      [1, records[kind]?.put ?? []],
      [-1, back.records[kind]?.put ?? []],
    ] as const)
      for (const [n, record] of put.entries()) {
        if (n % STEP === STEP - 1) yield;
        bytes += sign * (JSON.stringify(record).length + 1);
      }
  }
  return bytes;
}

/** How long the document is then, or the problem that says why it may not be saved. */
async function keepable(
  database: Database,
  before: Held,
  after: AnyDocument,
  there: DocumentDifference,
  back: DocumentDifference,
  coming: Coming,
): Promise<number> {
  const { type, check } = savedTypeOf(after.id);
  const fault = await inSteps(outcomeFault(type.shape, before.document, after));
  if (fault !== null) throw editRefused(fault);
  check?.(before.document, after);
  if (usesOf(after).length > 0) await wantUsed(database, after, coming);
  const bytes = await inSteps(bytesAfter(before, there, back));
  if (bytes > LONGEST)
    throw new Problem(
      422,
      'plan-too-large',
      `The ${type.shape.word} would be too large`,
      `A ${type.shape.word} may have ${LONGEST / 1_000_000} MB. Nothing was changed; make two of it.`,
    );
  return bytes;
}

/** A step with all that is kept of it. */
interface Prepared {
  step: Step;
  kept: StepToKeep;
  held: Held;
}

/** What a step keeps, and what is held of the document then. */
async function prepared(
  database: Database,
  before: Held,
  step: Step,
  { coming, ...of }: Pick<StepToKeep, 'key' | 'request' | 'changeId'> & { coming: Coming },
): Promise<Prepared> {
  const { after } = step;
  const { id } = after;
  const type = typeOf(id);
  const [there, back] = [
    differenceOf(type.shape, before.document, after),
    differenceOf(type.shape, after, before.document),
  ];
  const bytes = await keepable(database, before, after, there, back, coming);
  const revision = before.revision + 1;
  const [undoHead, redoHead] = [step.undoHead(revision), step.redoHead(revision)];
  // One after the other: of a large change each takes some 20 ms.
  const edit = JSON.stringify(step.edit);
  await letOthers();
  const inverse = JSON.stringify(type.restoring(back));
  await letOthers();
  const rows = before.inRows ? await rowChanges(database, there, before.document, after) : allRows(after);
  await letOthers();
  const receipt: Receipt = { revision, answerFrom: step.answerFrom };
  return {
    step,
    kept: {
      ...{ id, from: before.revision, ...headColumns(after), bytes, undoHead, redoHead },
      ...{ kind: step.kind, edit, inverse, logBytes: edit.length + inverse.length, label: step.label },
      ...{ beforeUndo: before.undoHead, beforeRedo: before.redoHead, ...of, receipt, rows },
    },
    held: { document: after, revision, undoHead, redoHead, bytes, inRows: true },
  };
}

/** Holds what was kept, and tells those who look at it. */
function announced({ step, held }: Prepared): void {
  const { id } = held.document;
  hold(id, held);
  announce(id, { revision: held.revision, label: wordsOf(id, step.label) });
  keepSnapshot(id, held.revision, held.document);
  giveSpaceBack();
}

const wordsOf = (documentId: string, labelParts: object) =>
  wordsOfLabel({ documentId, label: '', labelParts });

/** What the sender of a change is told of one document. */
export async function answerOf<E extends object>(
  database: Database,
  { step, held }: Prepared,
): Promise<ChangeAnswer<E>> {
  const { revision, undoHead, redoHead } = held;
  const { id } = held.document;
  const words = wordsOf(id, step.label);
  const label = (head: number | null) => (head === revision ? words : labelOf(database, id, head));
  return {
    revision,
    label: words,
    undo: await label(undoHead),
    redo: await label(redoHead),
    ...(await broughtAlong<E>(database, id, step.answerFrom, revision)),
  };
}

/** How often a change is worked out again because another process was faster. */
const MOST_TRIES = 30;

/** Takes its turn at several documents; in one order, so that two who want the same wait for each other and not both. */
const inTurns = <T>(ids: readonly string[], work: () => Promise<T>): Promise<T> =>
  [...ids].sort().reduceRight<() => Promise<T>>((next, id) => () => inTurn(id, next), work)();

/** Documents that a change turned out to be about as well; it begins again with them. */
export class More extends Error {
  constructor(readonly ids: readonly string[]) {
    super('More documents than were asked for');
  }
}

/** A change as it is asked for. */
interface Asked {
  /** The documents that it is about; the first is the one of which the answer speaks. */
  ids: readonly string[];
  asker: Asker;
  /** What it is known again by. */
  request: string;
  /** What else is answered again. */
  note?: unknown;
  /** Says what the next revision of each is to be, given the newest, in the order of the ids. */
  work(database: Database, newest: readonly Held[]): Promise<Step[]>;
}

/**
 * Changes documents, once, all of them or none. Where somebody else made a revision
 * meanwhile the change is worked out again. Undefined where it was made before: `answeredBefore` says what it answered.
 */
export async function change(asked: Asked): Promise<Prepared[] | undefined> {
  try {
    return await inTurns(asked.ids, () => changeNow(asked));
  } catch (error) {
    if (error instanceof More) return change({ ...asked, ids: error.ids });
    throw error;
  }
}

async function changeNow({ ids, asker, request, note, work }: Asked): Promise<Prepared[] | undefined> {
  const database = await writing();
  const isKnown = () => wasMade(database, asker, request);
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    let all: Prepared[];
    let kept: boolean;
    try {
      const newest: Held[] = [];
      for (const id of ids) newest.push(heldNewest(id) ?? (await loadDocument(database, id)));
      const steps = await work(database, newest);
      const changeId = steps.length > 1 ? crypto.randomUUID() : null;
      const coming: Coming = new Map(
        steps.map(({ after }, at) => [after.id, { document: after, revision: newest[at]!.revision + 1 }]),
      );
      all = [];
      for (const [at, step] of steps.entries())
        all.push(
          await prepared(database, newest[at]!, step, {
            ...{ changeId, request, coming },
            // The key is kept with the first of them; they are kept together or not at all.
            key: at === 0 ? asker.key : null,
          }),
        );
      const receipt: Receipt = {
        ...all[0]!.kept.receipt,
        ...(all.length > 1 && {
          several: all.map(({ kept: one }): [string, Receipt] => [one.id, one.receipt]),
        }),
        ...(note !== undefined && { note }),
      };
      all[0]!.kept.receipt = receipt;
      kept = await keepSteps(
        database,
        all.map((one) => one.kept),
      );
    } catch (error) {
      // What is refused now may be what was answered when it was sent first: undo with nothing left to undo.
      if (error instanceof Problem && (await isKnown())) return undefined;
      // What is held may be behind what another process has made of it.
      if (error instanceof Problem && (await areBehind(database, ids))) continue;
      throw error;
    }
    if (kept) {
      all.forEach(announced);
      return all;
    }
    ids.forEach(letGo);
    if (await isKnown()) return undefined;
  }
  throw new Problem(
    503,
    'plan-busy',
    `Too many change this ${typeOf(ids[0]!).shape.word} at once`,
    'Others were faster each time. Nothing was changed; try again.',
  );
}

/** Changes one document, or several of which the answer speaks of the first. */
export async function changeOne<E extends object>(asked: Asked): Promise<ChangeAnswer<E>> {
  const database = await writing();
  const all = await change(asked);
  const [id] = asked.ids;
  return all
    ? answerOf<E>(database, all[0]!)
    : (await answeredBefore<E>(database, id!, asked.asker, asked.request))!;
}

/** True where one of them is not what is held of it; it is held no more then. */
async function areBehind(database: Database, ids: readonly string[]): Promise<boolean> {
  let behind = false;
  for (const id of ids) behind = (await isBehind(database, id)) || behind;
  return behind;
}

/** True where what is held of a document is not the newest; it is held no more then. Says so where the document is removed or unknown. */
async function isBehind(database: Database, id: string): Promise<boolean> {
  const held = heldNewest(id);
  if (!held || (await wantRow(database, id)).revision === held.revision) return false;
  letGo(id);
  return true;
}
