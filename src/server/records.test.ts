import { until } from '../core/until.test.kit';
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import * as fc from '../core/property.test.kit';
import { eq, sql } from 'drizzle-orm';
import { applyEdit, migrateDocument, type Plan, type PlanId } from '../core/plan';
import { anyEditOn } from '../core/plan/edit.test.kit';
import { id, placing, renaming, zoneId } from '../core/samples.test.kit';
import { openDatabase, plans, records, snapshots } from '../db';
import { dataFolder } from './data-folder.test.kit';
import { letGo } from './documents/held';
import { listPlans } from './plan-list';
import { planAt, planLog, SNAPSHOT_EVERY } from './plan-log';
import { loadPlan, rawDocument } from './plan-rows';
import { createPlan, duplicatePlan, getPlan } from './plans';
import { getCopy, listCopies } from './copies';
import { radioOf } from './radios';
import { editPlan, goBack, stepBack } from './revisions';

/**
 * Plans as rows: what the tables say is what the edits came to, whatever was done; and a data directory of the first format,
 * made by the Veridon that wrote it, is read and worked on.
 */

const FIXTURES = join('src', 'server', 'fixtures');
dataFolder('records', {
  before(folder) {
    mkdirSync(join(folder, 'db'), { mode: 0o700 });
    const tar = brotliDecompressSync(readFileSync(join(FIXTURES, 'first-format.tar.br')));
    execFileSync('tar', ['xf', '-', '--no-same-owner', '-C', join(folder, 'db')], { input: tar });
  },
});

const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const make = async () => (await createPlan({ name: 'Test', modelId: 'tern-p2', owner })).plan.id;

const bytesOf = async (planId: PlanId) => {
  const { database } = await openDatabase();
  const [row] = await database.select({ bytes: plans.bytes }).from(plans).where(eq(plans.id, planId));
  return row!.bytes;
};

test('how long a plan is as JSON is known without writing it: each record with the comma before it', async () => {
  const planId = await make();
  const empty = JSON.stringify((await getPlan(planId)).plan).length;
  expect(await bytesOf(planId)).toBe(empty);
  await editPlan(planId, 1, placing(0, 1, 2));
  const lengths = (await getPlan(planId)).plan.channels.map((one) => JSON.stringify(one).length);
  const sum = lengths.reduce((a, b) => a + b + 1, 0);
  expect(await bytesOf(planId)).toBe(empty + sum);
  // what concerns no record counts nothing
  await editPlan(planId, 2, { name: 'describe', set: { name: 'Other' } });
  expect(await bytesOf(planId)).toBe(empty + sum);
  await editPlan(planId, 3, renaming(1, 'X'));
  const renamed = JSON.stringify((await getPlan(planId)).plan.channels[1]).length;
  expect(await bytesOf(planId)).toBe(empty + sum + renamed - lengths[1]!);
  await editPlan(planId, 4, { name: 'remove', ids: [id(0), id(2)] });
  expect(await bytesOf(planId)).toBe(empty + renamed + 1);
});

/** What the tables hold, read anew. */
async function fromRows(planId: PlanId): Promise<Plan> {
  const { database } = await openDatabase();
  letGo(planId);
  return (await loadPlan(database, planId)).document;
}

interface Then {
  revision: number;
  undo: string | null;
  redo: string | null;
  revisions: object[];
}
const then = JSON.parse(gunzipSync(readFileSync(join(FIXTURES, 'first-format.json.gz'))).toString()) as {
  plans: Record<string, Then>;
  removed: string;
  broken: PlanId;
  copy: string;
};
const thenPlans = Object.entries(then.plans) as [PlanId, Then][];

describe('a data directory of the first format', () => {
  /** A plan as it was said then, with what has come to plans since. */
  const today = (document: object) => {
    const plan = migrateDocument(document) as Plan;
    return {
      ...plan,
      lookedAt: {},
      unit: null,
      uses: [],
      leftOver: [],
      ...{ talkgroups: [], receiveLists: [], scanLists: [] },
      channels: plan.channels.map((channel) => ({ ...channel, list: 0 })),
    };
  };

  test.each(thenPlans)('%s: every revision of its log is what it was', async (planId, was) => {
    const { database } = await openDatabase();
    expect(await getPlan(planId)).toMatchObject({ revision: was.revision, undo: was.undo, redo: was.redo });
    for (const [index, document] of was.revisions.entries())
      expect(await planAt(database, planId, index + 1)).toEqual(today(document));
  });

  test('it is worked on: the first change makes rows of it, and undo, redo and going back lead through the old log', async () => {
    const [planId, was] = [...thenPlans].sort(([, a], [, b]) => b.revision - a.revision)[0]!;
    const { database } = await openDatabase();
    await editPlan(planId, was.revision, { name: 'describe', set: { name: 'Today' } });
    const [row] = await database.select().from(plans).where(eq(plans.id, planId));
    expect(row).toMatchObject({ document: null, name: 'Today' });
    const newest = today(was.revisions.at(-1)!);
    expect(await fromRows(planId)).toEqual({ ...newest, name: 'Today' });
    await stepBack(planId, 'undo');
    expect(await fromRows(planId)).toEqual(newest);
    // one further back is an edit of the old Veridon
    await stepBack(planId, 'undo');
    expect(await fromRows(planId)).toEqual(today(was.revisions.at(-2)!));
    await goBack(planId, was.revision + 3, 9);
    expect(await fromRows(planId)).toEqual(today(was.revisions[8]!));
    expect((await planLog(planId, undefined, 100)).edits).toHaveLength(was.revision + 3);
  });

  test('what was removed, spoilt or sealed then is so today', async () => {
    expect((await listPlans({ removed: true })).map((row) => row.id)).toEqual([then.removed]);
    const spoilt = (await listPlans()).find((row) => row.id === then.broken);
    expect(spoilt).toMatchObject({ trouble: expect.stringContaining('channels.0.slot'), readable: null });
    expect(JSON.parse(await rawDocument(then.broken))).toMatchObject({ format: 1, name: 'Broken' });
    await expect(duplicatePlan(then.broken, 1)).rejects.toMatchObject({ kind: 'plan-unreadable' });
    const [copy] = await listCopies();
    expect(copy!.id).toBe(then.copy);
    expect((await getCopy(then.copy)).image).toHaveLength(0x2000);
    expect(await radioOf(copy!.radioId)).toMatchObject({ modelId: 'tern-p2', serial: 'LK204417' });
  });
});

test('whatever is done, the rows are what the log leads to, and nothing refers to what is gone', async () => {
  const reached = fc.tally();
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.tuple(fc.integer(), fc.nat(99)), { minLength: 5, maxLength: 25 }),
      async (luck) => {
        const { database } = await openDatabase();
        const planId = await make();
        const past = [(await getPlan(planId)).plan];
        await editPlan(planId, 1, placing(0, 1, 2, 3, 4, 5));
        past.push((await getPlan(planId)).plan);
        const zones = [1, 2].map((n) => ({ id: zoneId(n), name: `Zone ${n}`, members: [id(n), id(n + 2)] }));
        await editPlan(planId, 2, { name: 'put', kind: 'zone', records: zones, before: null });
        let now = (await getPlan(planId)).plan;
        past.push(now);
        let keys = 0;
        for (const [seed, choice] of luck) {
          const revision = past.length;
          const asker = { key: `records.${planId.slice(3)}-${keys++}` };
          const [edit] = fc.sample(anyEditOn(now), { numRuns: 1, seed });
          const send = () => {
            if (choice < 15) return stepBack(planId, 'undo', asker, revision);
            if (choice < 25) return stepBack(planId, 'redo', asker, revision);
            if (choice < 35) return goBack(planId, revision, 1 + (choice % Math.max(1, revision - 1)), asker);
            return editPlan(planId, revision, edit!, asker);
          };
          const answer = await send().catch(() => undefined);
          reached.count('done', answer !== undefined);
          if (!answer) continue;
          // its answer was lost: it is sent again, answers the same and does nothing
          if (choice % 3 === 0) expect(await send()).toEqual(answer);
          for (const one of answer.edits ?? [edit!]) {
            const result = applyEdit(now, one);
            if (!result.ok) throw new Error(result.reason);
            now = result.value;
          }
          past.push(now);
          expect(answer.revision).toBe(past.length);
        }
        expect((await getPlan(planId)).plan).toEqual(now);
        expect(await fromRows(planId)).toEqual(now);
        for (const [index, plan] of past.entries())
          expect(await planAt(database, planId, index + 1)).toEqual(plan);
        const ids = new Set(now.channels.map((channel) => channel.id));
        reached.count(
          'zones with channels',
          now.zones.some(({ members }) => members.length > 0),
        );
        for (const { members } of now.zones) for (const one of members) expect(ids.has(one)).toBe(true);
      },
    ),
    { numRuns: 30 },
  );
  reached.expectShare('done', 0.6);
  reached.expectShare('zones with channels', 0.15);
});

test('one changed cell writes one row, and going back writes the changed records only', async () => {
  const { database } = await openDatabase();
  const planId = await make();
  await editPlan(planId, 1, placing(0, 1, 2, 3));
  const places = async () => {
    const place = sql<string>`ctid::text`;
    const rows = await database
      .select({ id: records.id, place })
      .from(records)
      .where(eq(records.documentId, planId));
    return new Map(rows.map((row) => [row.id, row.place]));
  };
  const before = await places();
  await editPlan(planId, 2, renaming(2, 'Other'));
  const after = await places();
  expect([...after].filter(([one, place]) => before.get(one) !== place).map(([one]) => one)).toEqual([id(2)]);
  const answer = await goBack(planId, 3, 2);
  expect(answer.edits).toMatchObject([
    { name: 'restore', records: { channel: { put: [{ id: id(2), name: 'Station 2' }], remove: [] } } },
  ]);
  expect(JSON.stringify(answer.edits)).not.toContain(id(1));
});

test('zones keep their order over any change of it, in the rows too', async () => {
  const planId = await make();
  await editPlan(planId, 1, placing(0, 1));
  const zone = (n: number) => ({ id: zoneId(n), name: `Zone ${n}`, members: [id(0), id(1)] });
  await editPlan(planId, 2, {
    name: 'put',
    kind: 'zone',
    records: [zone(1), zone(2), zone(3)],
    before: null,
  });
  await editPlan(planId, 3, { name: 'order', kind: 'zone', ids: [zoneId(3)], before: zoneId(1) });
  await editPlan(planId, 4, { name: 'put', kind: 'zone', records: [zone(4)], before: zoneId(1) });
  await editPlan(planId, 5, { name: 'remove', kind: 'zone', ids: [zoneId(3)] });
  await editPlan(planId, 6, {
    name: 'change',
    kind: 'zone',
    changes: [{ id: zoneId(1), set: { name: 'First' } }],
  });
  await editPlan(planId, 7, { name: 'remove', ids: [id(0)] });
  expect((await fromRows(planId)).zones).toEqual([
    { ...zone(4), members: [id(1)] },
    { ...zone(1), name: 'First', members: [id(1)] },
    { ...zone(2), members: [id(1)] },
  ]);
  expect((await stepBack(planId, 'undo')).label).toBe('Remove “Station 0”');
  expect((await fromRows(planId)).zones[0]!.members).toEqual([id(0), id(1)]);
});

test('an edit of another process on the same database is noticed, and held against what was made here', async () => {
  const { database } = await openDatabase();
  const planId = await make();
  await editPlan(planId, 1, placing(0, 1));
  // as the other process would write it: a revision that nothing here has heard of
  await database.execute(
    sql`update records set data = data || '{"name": "Theirs"}' where document_id = ${planId} and id = ${id(0)}`,
  );
  const log = { edit: renaming(0, 'Theirs'), inverse: renaming(0, 'Station 0') };
  await database.execute(sql`insert into revisions (document_id, revision, kind, edit, inverse, label)
    values (${planId}, 3, 'edit', ${JSON.stringify(log.edit)}::jsonb, ${JSON.stringify(log.inverse)}::jsonb, 'Theirs')`);
  await database.execute(sql`update plans set revision = 3 where id = ${planId}`);
  await expect(editPlan(planId, 2, renaming(0, 'Mine'))).rejects.toMatchObject({ kind: 'stale-edit' });
  const answer = await editPlan(planId, 2, renaming(1, 'Mine'));
  expect(answer).toMatchObject({ revision: 4, edits: [log.edit, renaming(1, 'Mine')] });
  expect((await fromRows(planId)).channels.map(({ name }) => name)).toEqual(['Theirs', 'Mine']);
});

test('a row that is no record makes its plan unreadable, and no other', async () => {
  const { database } = await openDatabase();
  const planId = await make();
  await editPlan(planId, 1, placing(0, 1));
  await editPlan(planId, 2, renaming(0, 'Sound'));
  await database
    .update(records)
    .set({ data: { slot: 3 } })
    .where(eq(records.id, id(1)));
  letGo(planId);
  await database.execute(sql`update plans set revision = revision where id = ${planId}`);
  await expect(getPlan(planId)).rejects.toMatchObject({ kind: 'plan-unreadable' });
  await database.delete(records).where(eq(records.documentId, planId));
});

test(`a snapshot is kept every ${SNAPSHOT_EVERY} revisions, and the way back by it is the same`, async () => {
  const { database } = await openDatabase();
  const planId = await make();
  await editPlan(planId, 1, placing(0));
  for (let revision = 2; revision < SNAPSHOT_EVERY + 20; revision++)
    await editPlan(planId, revision, renaming(0, `Name ${revision}`));
  const kept = async () =>
    (await database.select().from(snapshots).where(eq(snapshots.documentId, planId))).map(
      (one) => one.revision,
    );
  await until('the snapshot', async () => (await kept()).length > 0);
  expect(await kept()).toEqual([SNAPSHOT_EVERY]);
  letGo(planId);
  // A log that does not lead back any more behind the snapshot shows that it is used.
  await database.execute(
    sql`update revisions set inverse = '{"name": "remove", "ids": ["ch_nobody"]}' where document_id = ${planId} and revision > ${SNAPSHOT_EVERY}`,
  );
  expect((await planAt(database, planId, 100)).channels[0]!.name).toBe('Name 99');
  await expect(planAt(database, planId, SNAPSHOT_EVERY + 1)).rejects.toThrow('does not lead back');
});
