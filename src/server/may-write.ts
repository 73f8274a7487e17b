import { desc, and, eq, isNotNull } from 'drizzle-orm';
import { LOW_BATTERY } from '../core/bench';
import { isNewer } from '../core/models';
import type { RadioId } from '../core/plan';
import { jobs } from '../db';
import { listCopies } from './copies';
import { reading } from './database';
import type { Present } from './ports';
import { Problem } from './problem';

/** What keeps a radio from being written, before anything is begun. */

/** Refuses to write a radio whose memory may lie otherwise, or that may go out in the middle. */
export function wantFit({
  ident,
  model,
  called,
}: Pick<Present, 'ident' | 'model'> & { called: string }): void {
  if (isNewer(ident.firmware, model))
    throw new Problem(
      409,
      'firmware-newer',
      'Its firmware is newer',
      `${called} has firmware ${ident.firmware}; Veridon knows the ${model.name} up to ${model.firmware}. Its memory may lie otherwise there: it can be read and sealed, and is not written.`,
    );
  if (ident.battery !== null && ident.battery < LOW_BATTERY)
    throw new Problem(
      409,
      'battery-low',
      'Its battery is low',
      `The battery of ${called} is at ${ident.battery} percent; ${LOW_BATTERY} are wanted for a write. Charge it, or change the battery. Nothing was written.`,
    );
}

/** Refuses also where nothing of the radio is sealed. */
export async function wantWritable(found: Present & { called: string }): Promise<void> {
  wantFit(found);
  const { radioId, called } = found;
  if ((await listCopies(radioId)).length === 0)
    throw new Problem(
      409,
      'never-read',
      'It has never been read',
      `${called} has not been read yet. Read it first: what it holds is sealed then, so that you can always go back.`,
    );
}

/** What was to be written into a radio and broke off; undefined where there is no such thing. */
export async function brokenOff(radioId: RadioId) {
  const database = await reading();
  const [row] = await database
    .select({
      ...{ id: jobs.id, image: jobs.image, state: jobs.state },
      ...{ planId: jobs.planId, planRevision: jobs.planRevision, copyId: jobs.copyId },
    })
    .from(jobs)
    .where(and(eq(jobs.radioId, radioId), isNotNull(jobs.image)))
    .orderBy(desc(jobs.startedAt))
    .limit(1);
  return row?.image && row.state !== 'running' ? { ...row, image: new Uint8Array(row.image) } : undefined;
}

/** The radios of which a write broke off that can go on. */
export async function withBrokenOff(): Promise<Set<RadioId>> {
  const database = await reading();
  const rows = await database
    .selectDistinct({ radioId: jobs.radioId })
    .from(jobs)
    .where(isNotNull(jobs.image));
  return new Set(rows.map(({ radioId }) => radioId));
}
