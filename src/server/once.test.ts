import * as fc from '../core/property.test.kit';
import { sql } from 'drizzle-orm';
import { id, placing, renaming } from '../core/samples.test.kit';
import type { Edit } from '../core/plan';
import { openDatabase, plans, revisions } from '../db';
import { dataFolder } from './data-folder.test.kit';
import { changeKeySchema } from './once';
import { listPlans } from './plan-list';
import { rawDocument } from './plan-rows';
import { createPlan, duplicatePlan, getPlan } from './plans';
import { planLog } from './plan-log';
import { editPlan, goBack, stepBack } from './revisions';
import { keepSteps } from './documents/steps';

/** What is accepted is kept once, whole, and within what can be read again. */

dataFolder('once');

const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
const make = async (...numbers: number[]) => {
  const { plan } = await createPlan({ name: 'Test', modelId: 'tern-p2', owner });
  if (numbers.length > 0) await editPlan(plan.id, 1, placing(...numbers));
  return plan.id;
};
let keys = 0;
const key = () => ({ key: `test.${++keys}` });

describe('a change that is sent again', () => {
  test('answers the same and does nothing, whatever it was and whatever came since', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom('rename', 'stale', 'undo', 'redo', 'go back'), {
          minLength: 3,
          maxLength: 12,
        }),
        async (kinds) => {
          const planId = await make(0, 1);
          const sent: { again: () => Promise<unknown>; answer: unknown }[] = [];
          for (const [n, kind] of kinds.entries()) {
            const { revision } = await getPlan(planId);
            const asker = key();
            const again = {
              rename: () => editPlan(planId, revision, renaming(0, `Name ${n}`), asker),
              stale: () => editPlan(planId, Math.max(2, revision - 1), renaming(1, `Late ${n}`), asker),
              undo: () => stepBack(planId, 'undo', asker),
              redo: () => stepBack(planId, 'redo', asker),
              'go back': () => goBack(planId, revision, 1, asker),
            }[kind];
            const answer = await again().catch(() => undefined);
            if (answer) sent.push({ again, answer });
          }
          const before = await getPlan(planId);
          for (const { again, answer } of sent) expect(await again()).toEqual(answer);
          expect(await getPlan(planId)).toEqual(before);
        },
      ),
      { numRuns: 15 },
    );
  });

  test('at the same moment is done once', async () => {
    const planId = await make(0);
    const asker = key();
    const answers = await Promise.all([1, 2, 3].map(() => stepBack(planId, 'undo', asker)));
    expect(answers[1]).toEqual(answers[0]);
    expect(answers[2]).toEqual(answers[0]);
    expect((await getPlan(planId)).revision).toBe(3);
  });

  test('makes no second plan, and no second duplicate', async () => {
    const [one, two] = [key(), key()];
    const first = await createPlan({ name: 'Once', modelId: 'tern-p2', owner }, {}, one);
    await editPlan(first.plan.id, 1, placing(4));
    expect(await createPlan({ name: 'Once', modelId: 'tern-p2', owner }, {}, one)).toEqual(first);
    const copy = await duplicatePlan(first.plan.id, undefined, two);
    expect(await duplicatePlan(first.plan.id, undefined, two)).toEqual(copy);
    expect((await listPlans()).filter(({ name }) => name.startsWith('Once'))).toHaveLength(2);
  });

  test('a key that was another change’s is refused, and one that failed can be used again', async () => {
    const planId = await make(0);
    const asker = key();
    await expect(editPlan(planId, 2, renaming(9, 'X'), asker)).rejects.toMatchObject({ status: 422 });
    await editPlan(planId, 2, renaming(0, 'X'), asker);
    await expect(editPlan(planId, 2, renaming(0, 'Y'), asker)).rejects.toMatchObject({
      status: 422,
      kind: 'key-used',
    });
  });

  test('a receipt of an older Veridon, which says less, does: the edit itself brings its sender along', async () => {
    const planId = await make(0);
    const asker = key();
    const { edits: _, ...answer } = await editPlan(planId, 2, renaming(0, 'Then'), asker);
    const { database } = await openDatabase();
    await database.execute(sql`update changes set receipt = receipt - 'answerFrom' where key = ${asker.key}`);
    expect(await editPlan(planId, 2, renaming(0, 'Then'), asker)).toEqual({
      ...answer,
      edits: [renaming(0, 'Then')],
    });
  });

  test.each([
    ['page7f3a.12', true],
    ['a-b-c-d.e', true],
    ['page', false],
    ['x.1', false],
    ['page.', false],
    ['page.1.2', false],
    [`${'p'.repeat(41)}.1`, false],
    ['pa ge.1', false],
  ])('%j is a key: %s', (text, is) => expect(changeKeySchema.safeParse(text).success).toBe(is));
});

describe('a plan that cannot be read', () => {
  /** Puts into the table what an edit of an older Veridon may have left. */
  const spoil = async (planId: string, document: string) => {
    const { database } = await openDatabase();
    await database.execute(
      sql`update plans set document = ${document}::jsonb, head = null, revision = revision + 1 where id = ${planId}`,
    );
  };
  /** A plan whose third revision put a channel into slot 10000. */
  const spoilt = async () => {
    const planId = await make(0, 1);
    const { plan } = await getPlan(planId);
    const far = { ...plan.channels[0]!, id: id(77), slot: 10_000 };
    const { database } = await openDatabase();
    await database.insert(revisions).values({
      documentId: planId,
      revision: 3,
      kind: 'edit',
      edit: placing(77),
      inverse: { name: 'restore', put: [], remove: [far.id] },
      label: 'Place one too many',
    });
    await spoil(planId, JSON.stringify({ ...plan, channels: [...plan.channels, far] }));
    return { planId, plan };
  };

  test('takes no other with it: the list says what is wrong, and which revision can be read', async () => {
    const sound = await make(3);
    const { planId } = await spoilt();
    const listed = await listPlans();
    expect(listed.find((row) => row.id === planId)).toMatchObject({
      name: 'Test',
      trouble: expect.stringContaining('channels.2.slot'),
      readable: 2,
    });
    expect(listed.find((row) => row.id === sound)).toMatchObject({
      channels: 1,
      trouble: null,
      readable: null,
    });
  });

  test('says so to whoever opens or changes it, gives its document, and its last readable revision as a new plan', async () => {
    const { planId, plan } = await spoilt();
    const unreadable = { status: 409, kind: 'plan-unreadable', detail: expect.stringContaining('Test') };
    await expect(getPlan(planId)).rejects.toMatchObject(unreadable);
    await expect(editPlan(planId, 3, renaming(0, 'X'))).rejects.toMatchObject(unreadable);
    await expect(stepBack(planId, 'undo')).rejects.toMatchObject(unreadable);
    await expect(duplicatePlan(planId)).rejects.toMatchObject(unreadable);
    expect(JSON.parse(await rawDocument(planId))).toMatchObject({ channels: { length: 3 } });
    const saved = await duplicatePlan(planId, 2);
    expect(saved.plan).toMatchObject({ name: 'Test, copy', channels: plan.channels });
    expect((await duplicatePlan(planId, 1)).plan.channels).toEqual([]);
  });

  test.each(['{}', 'null', '[]', '"x"', '{"channels": 3}', '{"format": 2}'])(
    'its document may be anything: %s',
    async (document) => {
      const planId = await make(0);
      await spoil(planId, document);
      expect((await listPlans()).find((row) => row.id === planId)).toMatchObject({
        trouble: expect.stringContaining('no plan'),
        readable: null,
      });
      expect(JSON.parse(await rawDocument(planId))).toEqual(JSON.parse(document));
    },
  );
});

describe('limits', () => {
  test('a model that nobody knows is not put into a plan by any edit', async () => {
    const planId = await make(0);
    const unknown = { status: 422, kind: 'unknown-model' };
    const describing: Edit = { name: 'describe', set: { modelId: 'no-such' } };
    await expect(editPlan(planId, 2, describing)).rejects.toMatchObject(unknown);
    const details = { name: 'Test', modelId: 'no-such', owner };
    await expect(
      editPlan(planId, 2, { name: 'restore', put: [], remove: [], details }),
    ).rejects.toMatchObject(unknown);
    expect((await getPlan(planId)).revision).toBe(2);
  });

  test('a plan that would be larger than 4 MB is refused with a sentence', async () => {
    const planId = await make();
    const note = '𝄞'.repeat(500);
    const placed = placing(...Array.from({ length: 140 }, (_, n) => n)) as Extract<Edit, { name: 'place' }>;
    const fitted = Object.fromEntries(
      Array.from({ length: 32 }, (_, n) => [`${'m'.repeat(38)}${n}`, '𝄞'.repeat(32)]),
    );
    const channels = placed.channels.map((channel) => ({ ...channel, note, fitted }));
    let revision = 1;
    const grow = async () => {
      for (let n = 0; n < 20; n++) {
        const more = channels.map((one, m) => ({ ...one, id: id(n * 140 + m) }));
        ({ revision } = await editPlan(planId, revision, {
          ...placed,
          channels: more,
          range: { first: 0, count: 9999 },
        }));
      }
    };
    await expect(grow()).rejects.toMatchObject({ status: 422, kind: 'plan-too-large' });
    expect((await getPlan(planId)).revision).toBe(revision);
    // each of those edits has half a megabyte: the log gives them in pages
    const page = await planLog(planId, undefined, 100);
    expect(JSON.stringify(page).length).toBeLessThan(1_500_000);
    expect(page.next).toBe(page.edits.at(-1)!.revision);
    const seen = page.edits.map((edit) => edit.revision);
    for (let { next } = page; next !== null;) {
      const more = await planLog(planId, next, 100);
      expect(more.edits.length).toBeGreaterThan(0);
      seen.push(...more.edits.map((edit) => edit.revision));
      ({ next } = more);
    }
    expect(seen).toEqual(Array.from({ length: revision - 1 }, (_, n) => revision - n));
    // and going back over all of them works
    await goBack(planId, revision, 2);
    expect((await getPlan(planId)).plan.channels).toHaveLength(140);
  });

  test('text that the database cannot hold does not reach it', async () => {
    const { database } = await openDatabase();
    expect((await database.select().from(plans)).length).toBeGreaterThan(0);
    await expect(createPlan({ name: 'a\0b', modelId: 'tern-p2', owner })).rejects.toMatchObject({
      status: 422,
    });
    await expect(createPlan({ name: 'a\ud834', modelId: 'tern-p2', owner })).rejects.toMatchObject({
      status: 422,
    });
  });
});

describe('changes of many at once', () => {
  const transactions = async () => {
    const { database } = await openDatabase();
    const { rows } = (await database.execute(sql`select txid_current()::int as n`)) as unknown as {
      rows: { n: number }[];
    };
    return rows[0]!.n;
  };

  test('go to the disk together, and each is answered for itself', async () => {
    const planIds = await Promise.all(Array.from({ length: 12 }, () => make(0)));
    const before = await transactions();
    const answers = await Promise.all(
      planIds.map((id, n) => editPlan(id, 2, renaming(0, `At once ${n}`), key())),
    );
    // the first goes alone, those that came meanwhile in one commit or a few; one is that of the count itself
    expect((await transactions()) - before).toBeLessThan(8);
    expect(answers.map(({ revision }) => revision)).toEqual(planIds.map(() => 3));
    for (const [n, id] of planIds.entries())
      expect((await getPlan(id)).plan.channels[0]!.name).toBe(`At once ${n}`);
  });

  test('what the database itself refuses of one spoils it for nobody', async () => {
    const planIds = await Promise.all([0, 1, 2].map(() => make(0)));
    const { database } = await openDatabase();
    const outcomes = await Promise.allSettled(
      planIds.map(async (planId, n) => {
        const { plan } = await getPlan(planId);
        const { name, modelId: model, owner: whose, abbreviations } = plan;
        const step = {
          id: planId,
          from: 2,
          name,
          model,
          head: { owner: whose, abbreviations },
          bytes: 1,
          undoHead: 3,
          redoHead: null,
          kind: 'edit' as const,
          edit: JSON.stringify(renaming(0, 'X')),
          inverse: JSON.stringify(renaming(0, 'Y')),
          logBytes: 2,
          // no text of PostgreSQL holds this sign
          label: { of: 'together', label: n === 1 ? 'a\0b' : 'Sound' },
          beforeUndo: 2,
          beforeRedo: null,
          ...key(),
          changeId: null,
          request: 'r',
          receipt: { revision: 3, answerFrom: null },
          rows: { put: [], gone: [] },
        };
        return keepSteps(database, [step]);
      }),
    );
    expect(outcomes.map(({ status }) => status)).toEqual(['fulfilled', 'rejected', 'fulfilled']);
    expect(
      await Promise.all(planIds.map(async (one) => (await planLog(one, undefined, 1)).edits[0]!.label)),
    ).toEqual(['Sound', 'Place “Station 0”', 'Sound']);
  });

  test('one whose key has been used is refused, and spoils it for nobody', async () => {
    const planIds = await Promise.all(Array.from({ length: 8 }, () => make(0)));
    const [twice, ...others] = [key(), ...planIds.slice(2).map(key)];
    const askers = [twice, twice, ...others];
    const outcomes = await Promise.allSettled(
      planIds.map((id, n) => editPlan(id, 2, renaming(0, `Key ${n}`), askers[n]!)),
    );
    expect(outcomes.map(({ status }) => status)).toEqual([
      'fulfilled',
      'rejected',
      ...others.map(() => 'fulfilled'),
    ]);
    expect((outcomes[1] as PromiseRejectedResult).reason).toMatchObject({ kind: 'key-used' });
    const names = await Promise.all(planIds.map(async (id) => (await getPlan(id)).plan.channels[0]!.name));
    expect(names.map((name) => name.startsWith('Key '))).toEqual([true, false, ...others.map(() => true)]);
    // and what was refused by its key can be sent with another
    expect((await editPlan(planIds[1]!, 2, renaming(0, 'Again'), key())).revision).toBe(3);
  });
});
