import * as fc from '../core/property.test.kit';
import { sql } from 'drizzle-orm';
import { applyEdit, type ChannelId, type Edit, type Plan, type PlanId, type RadioId } from '../core/plan';
import { IDENT, id, placing, renaming } from '../core/samples.test.kit';
import { openDatabase } from '../db';
import { dataFolder } from './data-folder.test.kit';
import { listPlans } from './plan-list';
import { checkPlan, createPlan, duplicatePlan, getPlan, hasNoPlans, setRemoved } from './plans';
import { planLog } from './plan-log';
import { editPlan, goBack, stepBack } from './revisions';
import { planFromCopy, sealCopy, getCopy, listCopies } from './copies';
import { calledOf, radioOf, seeRadio } from './radios';
import { ternP2 } from '../core/models/tern-p2';
import { ternP3 } from '../core/models/tern-p3';
import { newMemory, UNITS } from '../sim/bench/units';

/** The use cases on a real database in a directory of its own. */

dataFolder('plans');

const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const make = async () => (await createPlan({ name: 'Test', modelId: 'tern-p2', owner })).plan.id;
const names = async (planId: Plan['id']) => (await getPlan(planId)).plan.channels.map((one) => one.name);

type Step = { kind: 'edit'; edit: Edit } | { kind: 'undo' } | { kind: 'redo' };
const anyStep: fc.Arbitrary<Step> = fc.oneof(
  fc
    .oneof(
      fc.integer({ min: 0, max: 5 }).map((n) => placing(n)),
      fc
        .tuple(fc.integer({ min: 0, max: 5 }), fc.constantFrom('A', 'B', 'C'))
        .map(([n, name]) => renaming(n, name)),
      fc.integer({ min: 0, max: 5 }).map((n): Edit => ({ name: 'remove', ids: [id(n)] })),
      fc.constantFrom('X', 'Y').map((name): Edit => ({ name: 'describe', set: { name } })),
    )
    .map((edit): Step => ({ kind: 'edit', edit })),
  fc.constant<Step>({ kind: 'undo' }),
  fc.constant<Step>({ kind: 'redo' }),
);

test('undo and redo behave as two stacks, whatever is done in between', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(anyStep, { minLength: 1, maxLength: 25 }), async (steps) => {
      const planId = await make();
      // The plain way to do it: stacks of whole plans in memory.
      let now = (await getPlan(planId)).plan;
      let past: Plan[] = [];
      let future: Plan[] = [];
      let revision = 1;
      for (const step of steps) {
        if (step.kind === 'edit') {
          const wanted = applyEdit(now, step.edit);
          const answer = await editPlan(planId, revision, step.edit).catch((error: unknown) => error);
          if (!wanted.ok) {
            expect(answer).toMatchObject({ status: 422, detail: wanted.reason });
            continue;
          }
          past.push(now);
          future = [];
          now = wanted.value;
          revision++;
        } else {
          const [from, to] = step.kind === 'undo' ? [past, future] : [future, past];
          const answer = await stepBack(planId, step.kind).catch((error: unknown) => error);
          const target = from.pop();
          if (!target) {
            expect(answer).toMatchObject({ status: 409 });
            continue;
          }
          to.push(now);
          now = target;
          revision++;
        }
        past = [...past];
        const kept = await getPlan(planId);
        expect(kept.plan).toEqual(now);
        expect(kept).toMatchObject({
          revision,
          undo: past.length > 0 ? expect.any(String) : null,
          redo: future.length > 0 ? expect.any(String) : null,
        });
      }
    }),
    { numRuns: 25 },
  );
});

test('edits at the same moment come one after the other, and none is lost', async () => {
  const planId = await make();
  await editPlan(planId, 1, placing(0));
  await editPlan(planId, 2, placing(1));
  const answers = await Promise.allSettled([
    editPlan(planId, 3, renaming(0, 'First')),
    editPlan(planId, 3, renaming(1, 'Second')),
    editPlan(planId, 3, { name: 'describe', set: { name: 'Third' } }),
  ]);
  expect(answers.map((answer) => answer.status)).toEqual(['fulfilled', 'fulfilled', 'fulfilled']);
  expect(await names(planId)).toEqual(['First', 'Second']);
  expect((await getPlan(planId)).plan.name).toBe('Third');
  expect((await getPlan(planId)).revision).toBe(6);
  const { edits: log } = await planLog(planId, undefined, 10);
  expect(log.map((row) => row.revision)).toEqual([6, 5, 4, 3, 2]);
  expect((await planLog(planId, 4, 10)).edits.map((row) => row.revision)).toEqual([3, 2]);
});

test('an edit on a revision far back is held against all that came since', async () => {
  const planId = await make();
  await editPlan(planId, 1, placing(0));
  await editPlan(planId, 2, placing(1));
  for (const name of ['A', 'B', 'C'])
    await editPlan(planId, (await getPlan(planId)).revision, renaming(0, name));
  await expect(editPlan(planId, 3, renaming(0, 'Late'))).rejects.toMatchObject({
    status: 409,
    kind: 'stale-edit',
  });
  await expect(editPlan(planId, 3, renaming(1, 'Late'))).resolves.toMatchObject({
    revision: 7,
    // what came since, and then one's own
    edits: [...['A', 'B', 'C'].map((name) => renaming(0, name)), renaming(1, 'Late')],
  });
  expect(await names(planId)).toEqual(['C', 'Late']);
  // placing with a preview that no longer holds
  await expect(editPlan(planId, 2, { ...placing(2), expect: [1] } as Edit)).rejects.toMatchObject({
    status: 409,
    detail: expect.stringContaining('preview'),
  });
});

test('plans are listed, the last changed first', async () => {
  const [a, b] = [await make(), await make()];
  await editPlan(a, 1, placing(3));
  const listed = (await listPlans()).map((row) => row.id);
  expect(listed.indexOf(a)).toBeLessThan(listed.indexOf(b));
  expect((await listPlans()).find((row) => row.id === a)).toMatchObject({
    channels: 1,
    slots: 150,
    receive: [145_537_500],
    findings: [],
    written: null,
    model: 'Larkmoor Tern P2',
  });
});

test('going back makes the plan what it was at any revision; undo takes that back too', async () => {
  const planId = await make();
  const past = [(await getPlan(planId)).plan];
  const edits = [placing(0, 1), renaming(0, 'A'), placing(2), { name: 'remove', ids: [id(1)] }] as Edit[];
  for (const [index, edit] of edits.entries()) {
    await editPlan(planId, index + 1, edit);
    past.push((await getPlan(planId)).plan);
  }
  for (const [index, wanted] of past.slice(0, -1).entries()) {
    const { revision } = await getPlan(planId);
    const answer = await goBack(planId, revision, index + 1);
    expect(answer).toMatchObject({ revision: revision + 1, undo: `Go back to revision ${index + 1}` });
    expect(answer.edits).toHaveLength(1);
    expect((await getPlan(planId)).plan).toEqual(wanted);
  }
  await stepBack(planId, 'undo');
  expect((await getPlan(planId)).plan).toEqual(past[2]);
  await expect(goBack(planId, 3, 1)).rejects.toMatchObject({ status: 409 });
  const { revision } = await getPlan(planId);
  await expect(goBack(planId, revision, revision)).rejects.toMatchObject({ status: 422 });
});

test('a removed plan is out of the list and takes no edit; brought back it has all that it had, undo included', async () => {
  const planId = await make();
  await editPlan(planId, 1, placing(0));
  const before = await getPlan(planId);
  expect(await setRemoved(planId, true)).toEqual({ id: planId, name: 'Test' });
  expect((await listPlans()).map((row) => row.id)).not.toContain(planId);
  expect((await listPlans({ removed: true }))[0]!.id).toBe(planId);
  await expect(editPlan(planId, 2, renaming(0, 'Late'))).rejects.toMatchObject({
    status: 410,
    detail: expect.stringContaining('Bring it back'),
  });
  await expect(getPlan(planId)).rejects.toMatchObject({ status: 410 });
  expect(await hasNoPlans()).toBe(false);
  await setRemoved(planId, false);
  expect(await getPlan(planId)).toEqual(before);
  expect((await listPlans({ removed: true })).map((row) => row.id)).not.toContain(planId);
  await expect(setRemoved('pl_nothing' as PlanId, true)).rejects.toMatchObject({ status: 404 });
});

test('a removal that is sent again answers the same, and leaves a plan that was brought back meanwhile where it is', async () => {
  const planId = await make();
  const removal = { key: `window-a.${planId.replace(/[^a-z0-9]/gi, '')}`.slice(0, 40) };
  expect(await setRemoved(planId, true, removal)).toEqual({ id: planId, name: 'Test' });
  await setRemoved(planId, false);
  expect(await setRemoved(planId, true, removal)).toEqual({ id: planId, name: 'Test' });
  expect((await getPlan(planId)).plan.name).toBe('Test');
  await expect(setRemoved(planId, false, removal)).rejects.toMatchObject({ status: 422, kind: 'key-used' });
});

test('what is held of a plan is given again, the very same, until somebody changes it', async () => {
  const planId = await make();
  const { plan } = await getPlan(planId);
  expect((await getPlan(planId)).plan).toBe(plan);
  await editPlan(planId, 1, placing(0));
  expect((await getPlan(planId)).plan).not.toBe(plan);
});

test('a duplicate holds the same channels under a name of its own, and goes its own way', async () => {
  const planId = await make();
  await editPlan(planId, 1, placing(0));
  await editPlan(planId, 2, { name: 'describe', set: { abbreviations: [['Station', 'ST']] } });
  const copy = await duplicatePlan(planId);
  expect(copy).toMatchObject({
    revision: 1,
    undo: null,
    plan: { name: 'Test, copy', owner, abbreviations: [['Station', 'ST']] },
  });
  expect(copy.plan.channels).toEqual((await getPlan(planId)).plan.channels);
  expect((await duplicatePlan(copy.plan.id)).plan.name).toBe('Test, copy 2');
  await editPlan(copy.plan.id, 1, renaming(0, 'Other'));
  expect(await names(planId)).toEqual(['Station 0']);
  const long = 'A very long name of a plan, as long as any name may ever be';
  await editPlan(planId, 3, { name: 'describe', set: { name: long } });
  expect((await duplicatePlan(planId)).plan.name).toBe(
    'A very long name of a plan, as long as any name may ev, copy',
  );
  // a character of two halves is never cut in two: 60 of them are 54 and the ending
  await editPlan(planId, 4, { name: 'describe', set: { name: '𝄞'.repeat(60) } });
  expect((await duplicatePlan(planId)).plan.name).toBe(`${'𝄞'.repeat(54)}, copy`);
});

test('an earlier revision can be duplicated, up to the newest; one that there is not is refused', async () => {
  const planId = await make();
  await editPlan(planId, 1, placing(0));
  const channelsAt = async (revision: number) => (await duplicatePlan(planId, revision)).plan.channels.length;
  expect([await channelsAt(1), await channelsAt(2)]).toEqual([0, 1]);
  await expect(duplicatePlan(planId, 3)).rejects.toMatchObject({
    status: 422,
    kind: 'unknown-revision',
  });
});

describe('sealed copies', () => {
  const [unit] = UNITS;
  const image = newMemory(unit!);
  let radioId: RadioId;

  test('the first is marked so, the same bytes are not kept twice, and what is read back is what was sealed', async () => {
    radioId = await seeRadio(IDENT, ternP2);
    const first = await sealCopy(radioId, ternP2, image, 'read');
    expect(await sealCopy(radioId, ternP2, image, 'before write')).toBe(first);
    const other = image.slice();
    other[0x70] = 1;
    await sealCopy(radioId, ternP2, other, 'read');
    expect((await listCopies(radioId)).map((copy) => copy.reason)).toEqual(['read', 'first read']);
    expect((await getCopy(first)).image).toEqual(image);
  });

  test('the database itself keeps them from being changed or removed', async () => {
    const { database } = await openDatabase();
    const cause = (statement: ReturnType<typeof sql>) =>
      database.execute(statement).then(
        () => 'done',
        (error: Error) => String((error.cause as Error | undefined)?.message ?? error.message),
      );
    expect(await cause(sql`update copies set image = ''`)).toContain('never changed or removed');
    expect(await cause(sql`delete from copies`)).toContain('never changed or removed');
    expect(await listCopies(radioId)).toHaveLength(2);
  });

  test('a plan is made of what one holds', async () => {
    const [copy] = await listCopies(radioId);
    const { plan } = await planFromCopy(copy!.id);
    expect(plan.channels.map((one) => [one.slot, one.name, one.rx, one.tx])).toEqual(
      unit!.content.channels.map((one) => [one.slot, one.name, one.rx, one.tx]),
    );
    expect(new Set(plan.channels.map((one): ChannelId => one.id)).size).toBe(plan.channels.length);
  });
});

test('a radio is known by its model and serial; one that has none to say is the one of its model without', async () => {
  const id = await seeRadio({ ...IDENT, serial: 'LK299001' }, ternP2);
  expect(await seeRadio({ ...IDENT, serial: 'LK299001', firmware: '1.08' }, ternP2)).toBe(id);
  expect(await radioOf(id)).toMatchObject({ serial: 'LK299001', firmware: '1.08' });
  const nameless = await seeRadio({ ...IDENT, serial: null, halfWritten: true }, ternP2);
  expect(await seeRadio({ ...IDENT, serial: null, halfWritten: true }, ternP2)).toBe(nameless);
  const sameSerial = await seeRadio({ ...IDENT, serial: 'LK299001' }, ternP3);
  expect(new Set([id, nameless, sameSerial]).size).toBe(3);
  expect(calledOf(await radioOf(id))).toBe('LK299001');
  expect(await radioOf(nameless)).toMatchObject({ serial: null, state: 'half written' });
  expect(calledOf(await radioOf(nameless))).toBe('the Tern P2');
  const [one, two] = await Promise.all([1, 2].map(() => seeRadio({ ...IDENT, serial: 'LK299002' }, ternP2)));
  expect(one).toBe(two);
});

test('the list of plans counts all that Check says, what stands beside the channels too', async () => {
  const { plan } = await createPlan({ name: 'Wired', modelId: 'kestrel-c1', owner });
  const record = {
    ...{ id: 'sl_test0001', name: 'Nobody', members: [], first: null, second: null },
    ...{ answers: 'heard', startsItself: false },
  };
  const edit = { name: 'put', kind: 'scanList', records: [record], before: null } as unknown as Edit;
  await editPlan(plan.id, 1, edit);
  const { findings } = await checkPlan(plan.id);
  expect(findings.map(({ rule }) => rule)).toContain('scan-list-empty');
  const listed = (await listPlans()).find((one) => one.id === plan.id)!;
  expect(listed.findings.reduce((sum, { n }) => sum + n, 0)).toBe(findings.length);
  expect(listed).not.toHaveProperty('format');
});
