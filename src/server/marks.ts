import { and, asc, eq } from 'drizzle-orm';
import type { Plan, PlanId } from '../core/plan';
import { marks } from '../db';
import { reading, writing } from './database';
import { viewOf } from './documents/uses';
import { planAt } from './plan-log';
import { newestPlan, wantRow } from './plan-rows';
import { Problem } from './problem';

/** A revision that a person named. */
export interface Mark {
  revision: number;
  name: string;
  at: string;
}

/** Most that a plan has. */
const MOST_MARKS = 500;

/** The revisions of a plan that are named, the oldest first. */
export async function marksOf(id: PlanId): Promise<Mark[]> {
  const database = await reading();
  await wantRow(database, id);
  const rows = await database.select().from(marks).where(eq(marks.planId, id)).orderBy(asc(marks.revision));
  return rows.map(({ revision, name, at }) => ({ revision, name, at: at.toISOString() }));
}

const unknown = (asked: number, newest: number) =>
  new Problem(
    422,
    'unknown-revision',
    'No such revision',
    `The plan is at revision ${newest}; there is no ${asked} yet.`,
  );

/** Names a revision, or takes its name away; done twice it is the same. */
export async function setMark(id: PlanId, revision: number, name: string | null): Promise<Mark[]> {
  const database = await writing();
  const row = await wantRow(database, id);
  if (revision > row.revision) throw unknown(revision, row.revision);
  if (name === null)
    await database.delete(marks).where(and(eq(marks.planId, id), eq(marks.revision, revision)));
  else {
    if ((await marksOf(id)).length >= MOST_MARKS)
      throw new Problem(
        422,
        'too-many',
        'Too many marks',
        `A plan has ${MOST_MARKS} marks at most. Nothing was marked; take one away first.`,
      );
    await database
      .insert(marks)
      .values({ planId: id, revision, name })
      .onConflictDoUpdate({ target: [marks.planId, marks.revision], set: { name } });
  }
  return marksOf(id);
}

/** What a plan was at a revision. */
export async function planThen(id: PlanId, revision: number): Promise<{ plan: Plan; revision: number }> {
  const database = await reading();
  const newest = await newestPlan(database, id);
  if (revision > newest.revision) throw unknown(revision, newest.revision);
  return { plan: await planAt(database, id, revision), revision };
}

/** The same with all that it used, to be compared with what a radio has. */
export async function viewThen(id: PlanId, revision: number): Promise<{ plan: Plan; revision: number }> {
  const { plan } = await planThen(id, revision);
  return { plan: await viewOf(await reading(), plan), revision };
}
