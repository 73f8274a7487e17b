import type { ChannelId, Edit, Plan, PlanId } from '../core/plan';
import type { Database } from '../db';
import * as log from './documents/log';

/** The log of a plan: that of documents, with the types of plans. */

export { labelOf, lastReadable, SNAPSHOT_EVERY } from './documents/log';

/** The plan as it was at `revision`. */
export const planAt = (database: Database, id: PlanId, revision: number): Promise<Plan> =>
  log.documentAt<Plan>(database, id, revision);

/** An earlier revision of a plan whose newest cannot be read; only what is a plan comes of it. */
export const salvagedPlan = (database: Database, id: PlanId, revision: number): Promise<Plan> =>
  log.salvaged<Plan>(database, id, revision);

/** A page of the log of a plan: see `documentLog`. */
export const planLog = (
  id: PlanId,
  before: number | undefined,
  limit: number,
  { search, channel }: { search?: string | undefined; channel?: ChannelId | undefined } = {},
) => log.documentLog<Edit>(id, before, limit, { search, record: channel });
