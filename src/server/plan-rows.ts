import type { Plan, PlanId } from '../core/plan';
import { PLAN_SHAPE } from '../core/plan';
import type { Result } from '../core/result';
import type { Database } from '../db';
import type { Held } from './documents/held';
import * as rows from './documents/rows';

/** Plans as the tables keep them: the rows of documents, with the types of plans. */

export { rawDocument, unreadable, wantRow, type Row } from './documents/rows';

export const wantDocument = async (
  database: Database,
  id: PlanId,
  which?: { removed?: boolean },
): Promise<{ row: rows.Row; document: unknown }> => {
  const { row, value } = await rows.wantValue(database, id, which);
  return { row, document: value };
};

/** The plan in a document, in steps between which others have their turn. */
export const planIn = (document: unknown): Promise<Result<Plan>> =>
  rows.documentIn<Plan>(PLAN_SHAPE, document);

/** The newest revision of a plan, from the tables, and held from now on. */
export const loadPlan = (database: Database, id: PlanId): Promise<Held<Plan>> =>
  rows.loadDocument<Plan>(database, id);

/** The newest revision of a plan: what is held where that still is the newest, otherwise from the tables. */
export const newestPlan = (database: Database, id: PlanId): Promise<Held<Plan>> =>
  rows.newestDocument<Plan>(database, id);
