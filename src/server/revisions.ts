import type { Edit, PlanId } from '../core/plan';
import type { ChangeAnswer } from './documents/receipts';
import { editDocument, goBackIn, stepBackIn, type Known } from './documents/revisions';
import type { Asker } from './once';

/** The changes of plans: those of documents, with the types of plans. */

export { editSeveral, type Known } from './documents/revisions';

/**
 * Appends an edit to a plan's log. An edit that was made on an old revision is run again on the newest where it still holds,
 * and refused with a reason where not. Once this has answered, the edit is on disk.
 */
export const editPlan = (
  id: PlanId,
  base: number,
  edit: Edit,
  asker?: Asker,
  known?: Known,
): Promise<ChangeAnswer<Edit>> => editDocument(id, base, edit, asker, known);

/** Takes the last edit back, or the last undo: see `stepBackIn`. */
export const stepBack = (
  id: PlanId,
  kind: 'undo' | 'redo',
  asker?: Asker,
  base?: number,
): Promise<ChangeAnswer<Edit>> => stepBackIn<Edit>(id, kind, asker, base);

/** Makes a plan again what it was at an earlier revision: see `goBackIn`. */
export const goBack = (
  id: PlanId,
  base: number,
  revision: number,
  asker?: Asker,
): Promise<ChangeAnswer<Edit>> => goBackIn<Edit>(id, base, revision, asker);
