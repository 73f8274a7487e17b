import { migrated, outcomeFault as faultOf, reading } from '../document/reading';
import type { Result } from '../result';
import { atOnce, type Stepwise } from '../stepwise';
import type { Plan } from './plan.schema';
import { PLAN_SHAPE } from './shape';

/** Plans out of documents, and what may become one: the machinery of documents, with the types of plans. */

/** A document of any format that there was, in the newest; what is no document stays what it is. */
export const migrateDocument = (document: unknown): unknown => migrated(PLAN_SHAPE, document);

/** The plan that a document of any format is, or what is wrong with it, in a sentence; in steps, since a large one takes a tenth of a second. */
export const readingDocument = (document: unknown): Stepwise<Result<Plan>> =>
  reading<Plan>(PLAN_SHAPE, document);

/** The same at once. */
export const readDocument = (document: unknown): Result<Plan> => atOnce(readingDocument(document));

/** What is wrong with a plan that came of another one, in a sentence; null where it can be saved. In steps, since all channels of a large plan may have changed. */
export const outcomeFaultInSteps = (before: Plan, after: Plan): Stepwise<string | null> =>
  faultOf(PLAN_SHAPE, before, after);

/** The same at once. */
export const outcomeFault = (before: Plan, after: Plan): string | null =>
  atOnce(outcomeFaultInSteps(before, after));
