import { and, eq } from 'drizzle-orm';
import {
  applyEdit,
  difference,
  headOf,
  inverseOf,
  KIND_NAMES,
  labelOfEdit,
  labelWords,
  outcomeFaultInSteps,
  readingEdit,
  rebaseEdit,
  sharedWith,
  type Difference,
  type Edit,
  type LabelParts,
  type Plan,
  type PlanId,
} from '../core/plan';
import { settingsFault } from '../core/image';
import type { Stepwise } from '../core/stepwise';
import { revisions, type Database } from '../db';
import { reading, writing } from './database';
import { inSteps, letOthers } from './in-steps';
import { heldAt, heldPlan, hold, holdEarlier, letGo, type HeldPlan } from './held-plans';
import { NOBODY, requestDigest, type Asker } from './once';
import { answeredBefore, broughtAlong, type ChangeAnswer, type Receipt } from './receipts';
import { partsOfLabel } from './labels';
import { keepSnapshot, labelOf, planAt } from './plan-log';
import { allRows, loadPlan, rowChanges, wantRow } from './plan-rows';
import { wantModel } from './plans';
import { Problem } from './problem';
import { giveSpaceBack } from './space';
import { keepStep } from './steps';
import { inTurn } from './turns';
import { announce } from './watch';

/** An edit that was made further back than this is refused: finding out whether it still holds would keep others waiting. */
const FAR_BACK = 2000;
/** A change that has been worked out on the newest revision, and is to be kept as the next. */
interface Step {
  kind: 'edit' | 'undo' | 'redo';
  edit: Edit;
  label: LabelParts;
  after: Plan;
  undoHead: (revision: number) => number | null;
  redoHead: (revision: number) => number | null;
  /** The revision from which the answer brings its sender along; null where it has all there is. */
  answerFrom: number | null;
}

/** Most that a plan may have, bytes of JSON; a full radio of 3,600 channels takes 2 MB. */
const LONGEST_PLAN = 4_000_000;

/** Records that are measured in one step. */
const STEP = 100;

/** How long the plan is as JSON after a change: by what is put instead of what, and what is gone. */
function* bytesAfter(before: HeldPlan, { records }: Difference, back: Difference): Stepwise<number> {
  let { bytes } = before;
  for (const kind of KIND_NAMES) {
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

/** How long the plan is then, or the problem that says why it may not be saved. */
async function keepable(before: HeldPlan, after: Plan, there: Difference, back: Difference): Promise<number> {
  const fault =
    (await inSteps(outcomeFaultInSteps(before.plan, after))) ??
    settingsFault(before.plan.settings, after.settings);
  if (fault !== null)
    throw new Problem(422, 'edit-refused', 'This cannot be done', `${fault} Nothing was changed.`);
  if (after.modelId !== before.plan.modelId) wantModel(after.modelId);
  const bytes = await inSteps(bytesAfter(before, there, back));
  if (bytes > LONGEST_PLAN)
    throw new Problem(
      422,
      'plan-too-large',
      'The plan would be too large',
      `A plan may have ${LONGEST_PLAN / 1_000_000} MB. Nothing was changed; make two plans of it.`,
    );
  return bytes;
}

/** What a change is known again by, where that is not the edit itself, and what is kept to be answered again. */
export interface Known {
  request: unknown;
  note: unknown;
}

/**
 * Keeps a step as the next revision, with its key, in one statement; what was the newest is still so, or nothing is done.
 * Gives what is held from now on, or undefined where somebody else was first or the key has been used.
 */
async function keep(
  database: Database,
  before: HeldPlan,
  step: Step,
  asker: Asker,
  request: string,
  note?: unknown,
): Promise<HeldPlan | undefined> {
  const { after } = step;
  const [there, back] = [difference(before.plan, after), difference(after, before.plan)];
  const bytes = await keepable(before, after, there, back);
  const { id } = after;
  const revision = before.revision + 1;
  const [undoHead, redoHead] = [step.undoHead(revision), step.redoHead(revision)];
  const undoing: Edit = { name: 'restore', ...back };
  const { name, modelId, ...head } = headOf(after);
  // One after the other: of a large change each takes some 20 ms.
  const edit = JSON.stringify(step.edit);
  await letOthers();
  const inverse = JSON.stringify(undoing);
  await letOthers();
  const rows = before.inRows ? await rowChanges(database, there, before.plan, after) : allRows(after);
  await letOthers();
  const receipt: Receipt = { revision, answerFrom: step.answerFrom, ...(note !== undefined && { note }) };
  const kept = await keepStep(database, {
    id,
    from: before.revision,
    name,
    model: modelId,
    head,
    bytes,
    undoHead,
    redoHead,
    kind: step.kind,
    edit,
    inverse,
    logBytes: edit.length + inverse.length,
    label: step.label,
    beforeUndo: before.undoHead,
    beforeRedo: before.redoHead,
    key: asker.key,
    request,
    receipt,
    rows,
  });
  if (!kept) return undefined;
  const held = { plan: after, revision, undoHead, redoHead, bytes, inRows: true };
  hold(id, held);
  announce(id, { revision, label: labelWords(step.label) });
  keepSnapshot(id, revision, after);
  giveSpaceBack();
  return held;
}

/** How often a change is worked out anew because another process was faster. */
const MOST_TRIES = 30;

/**
 * Changes a plan, once. `work` is given the newest revision and says what the next is to be; where somebody else made one
 * meanwhile it is asked again.
 */
function change(
  id: PlanId,
  asker: Asker,
  asked: unknown,
  work: (database: Database, newest: HeldPlan) => Promise<Step>,
  note?: unknown,
): Promise<ChangeAnswer> {
  const request = requestDigest({ id, request: asked });
  return inTurn(id, async () => {
    const database = await writing();
    for (let tries = 0; tries < MOST_TRIES; tries++) {
      let step: Step;
      let done: HeldPlan | undefined;
      try {
        const before = heldPlan(id) ?? (await loadPlan(database, id));
        step = await work(database, before);
        done = await keep(database, before, step, asker, request, note);
      } catch (error) {
        // What is refused now may be what was answered when it was sent first: undo with nothing left to undo.
        const answer = error instanceof Problem && (await answeredBefore(database, id, asker, request));
        if (answer) return answer;
        // What is held may be behind what another process has made of it.
        if (error instanceof Problem && (await isBehind(database, id))) continue;
        throw error;
      }
      if (done) {
        const { revision } = done;
        const words = labelWords(step.label);
        const label = (head: number | null) => (head === revision ? words : labelOf(database, id, head));
        return {
          revision,
          label: words,
          undo: await label(done.undoHead),
          redo: await label(done.redoHead),
          ...(await broughtAlong(database, id, step.answerFrom, revision)),
        };
      }
      letGo(id);
      const answer = await answeredBefore(database, id, asker, request);
      if (answer) return answer;
    }
    throw new Problem(
      503,
      'plan-busy',
      'Too many change this plan at once',
      'Others were faster each time. Nothing was changed; try again.',
    );
  });
}

/** True where what is held of a plan is not the newest; it is held no more then. Says so where the plan is removed or unknown. */
async function isBehind(database: Database, id: PlanId): Promise<boolean> {
  const held = heldPlan(id);
  if (!held || (await wantRow(database, id)).revision === held.revision) return false;
  letGo(id);
  return true;
}

/** The plan on which an edit was made, where that is not the newest any more. */
async function baseOf(database: Database, id: PlanId, base: number, revision: number): Promise<Plan> {
  if (revision - base > FAR_BACK)
    throw new Problem(
      409,
      'stale-edit',
      'Made too long ago',
      `This was made on revision ${base}; the plan is at ${revision}. Load the plan again and look at it.`,
      { revision },
    );
  const known = heldAt(id, base);
  if (known) return known;
  // Whoever makes one edit on it is likely to make the next on it too.
  const plan = await planAt(database, id, base);
  holdEarlier(id, base, plan);
  return plan;
}

/**
 * Appends an edit to a plan's log. An edit that was made on an old revision is run again on the newest where it still holds,
 * and refused with a reason where not. Once this has answered, the edit is on disk.
 */
export function editPlan(
  id: PlanId,
  base: number,
  edit: Edit,
  asker = NOBODY,
  known?: Known,
): Promise<ChangeAnswer> {
  const asked = known?.request ?? { base, edit };
  const work = async (database: Database, { plan, revision }: HeldPlan): Promise<Step> => {
    if (base > revision)
      throw new Problem(
        409,
        'unknown-revision',
        'No such revision',
        `The plan is at revision ${revision}; the edit says ${base}. Load the plan again.`,
      );
    const stale = base < revision;
    const result = stale
      ? rebaseEdit(edit, await baseOf(database, id, base, revision), plan)
      : applyEdit(plan, edit);
    if (!result.ok) {
      const [status, kind, title] = stale
        ? ([409, 'stale-edit', 'Changed meanwhile'] as const)
        : ([422, 'edit-refused', 'This cannot be done'] as const);
      throw new Problem(status, kind, title, result.reason, { revision });
    }
    return {
      kind: 'edit',
      edit,
      label: labelOfEdit(edit, plan),
      after: result.value,
      undoHead: (next) => next,
      redoHead: () => null,
      answerFrom: stale ? base : null,
    };
  };
  return change(id, asker, asked, work, known?.note);
}

/**
 * Takes the last edit back, or the last undo: a revision of its own, so that the log only ever grows. `base` is the revision
 * that its sender has, from which the answer brings it along; the newest where it is not said.
 */
export function stepBack(
  id: PlanId,
  kind: 'undo' | 'redo',
  asker = NOBODY,
  base?: number,
): Promise<ChangeAnswer> {
  return change(id, asker, kind, async (database, { plan, revision, undoHead, redoHead }) => {
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
      .where(and(eq(revisions.planId, id), eq(revisions.revision, head)));
    const edit = await inSteps(readingEdit(target!.inverse));
    await letOthers();
    const result = applyEdit(plan, edit);
    if (!result.ok) throw new Error(`The log of ${id} does not lead back from ${head}: ${result.reason}`);
    return {
      kind,
      edit,
      label: partsOfLabel(target!),
      after: result.value,
      undoHead: (next) => (kind === 'undo' ? target!.beforeUndo : next),
      redoHead: (next) => (kind === 'undo' ? next : target!.beforeRedo),
      answerFrom: Math.min(base ?? revision, revision),
    };
  });
}

/**
 * Makes a plan again what it was at an earlier revision: a revision of its own, which undo takes back like any other.
 * Refused where the plan is not at `base` any more, since what came since would be lost unseen.
 */
export async function goBack(
  id: PlanId,
  base: number,
  revision: number,
  asker = NOBODY,
): Promise<ChangeAnswer> {
  // Found before its turn comes: the log does not change behind us, and a long one keeps nobody waiting.
  const database = await reading();
  const then = await wantRow(database, id);
  const wanted = base === then.revision && revision < base ? await planAt(database, id, revision) : undefined;
  return change(id, asker, { base, revision }, async (_, newest) => {
    if (base !== newest.revision)
      throw new Problem(
        409,
        'stale-edit',
        'Changed meanwhile',
        `The plan was changed meanwhile: it is at revision ${newest.revision}. Look at it and try again.`,
        { revision: newest.revision },
      );
    if (revision >= newest.revision)
      throw new Problem(
        422,
        'unknown-revision',
        'No earlier revision',
        `The plan is at revision ${newest.revision}; name an earlier one to go back to.`,
      );
    // What came out of the log may be alike without being the same: the changed records are what differs.
    const found = wanted ?? (await planAt(database, id, revision));
    const edit = inverseOf(sharedWith(newest.plan, found), newest.plan);
    const result = applyEdit(newest.plan, edit);
    if (!result.ok) throw new Error(`${id} cannot be made what it was at ${revision}: ${result.reason}`);
    return {
      kind: 'edit',
      edit,
      label: { of: 'go back', revision },
      after: result.value,
      undoHead: (next) => next,
      redoHead: () => null,
      answerFrom: base,
    };
  });
}
