import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import type { GeneralEdit } from '../../core/document';
import {
  editFor,
  listOf,
  part,
  PART_TYPE,
  talkgroupOf,
  tg,
  wishes,
  type Part,
} from '../../core/part.test.kit';
import * as fc from '../../core/property.test.kit';
import { backupFile, makeBackup } from '../backup';
import { dataFolder } from '../data-folder.test.kit';
import { NOBODY } from '../once';
import { pageOfPlans, planNames } from '../plan-list';
import { checkBackup } from '../restore';
import { onRevision, type Told } from '../watch';
import { createDocument } from './create';
import { letGo } from './held';
import { documentAt, documentLog, SNAPSHOT_EVERY } from './log';
import { editDocument, editSeveral, goBackIn, stepBackIn } from './revisions';
import { database, makePart, newestPart, partsMade } from './parts.test.kit';
import { loadDocument, rawDocument } from './rows';
import { keepSteps, type StepToKeep } from './steps';

/** Everything that is done with plans is done with documents of a second type, by the same code; some changes are of several at once. */

dataFolder('part');

/** The document as the tables have it. */
const inTables = async (id: string) => {
  letGo(id);
  return (await loadDocument<Part>(await database(), id)).document;
};
const rename = (n: number, name: string): GeneralEdit => ({
  name: 'change',
  kind: 'talkgroup',
  changes: [{ id: tg(n), set: { name } }],
});
let keys = 0;
const key = () => ({ key: `parts.${++keys}` });

describe('one of them', () => {
  test('any edits, undo, redo and going back: the tables have what the log leads to, at every revision', async () => {
    let edits = 0;
    await fc.assert(
      fc.asyncProperty(
        wishes,
        fc.array(fc.constantFrom('undo', 'redo', 'back'), { maxLength: 8 }),
        async (all, steps) => {
          const { id } = await makePart([talkgroupOf(0), talkgroupOf(1)], [listOf(0, [1])]);
          const then: Part[] = [(await newestPart(id)).document];
          for (const one of all) {
            const { document, revision } = await newestPart(id);
            const edit = editFor(one, document);
            const wanted = edit && PART_TYPE.apply(document, edit);
            if (!edit || !wanted?.ok) continue;
            expect(await editDocument(id, revision, edit)).toMatchObject({
              revision: revision + 1,
              redo: null,
            });
            then.push(wanted.value);
            edits++;
          }
          expect(await inTables(id)).toEqual(then.at(-1));
          /** Where undo and redo stand in `then`. */
          let at = then.length - 1;
          const most = at;
          let redoable = true;
          for (const step of steps) {
            const { document, revision } = await newestPart(id);
            if (step === 'back') {
              if (revision < 2) continue;
              await goBackIn(id, revision, 1);
              expect((await newestPart(id)).document).toEqual(then[0]);
              await stepBackIn(id, 'undo');
              expect((await newestPart(id)).document).toEqual(document);
              redoable = false;
            } else if (step === 'undo' ? at > 0 : redoable && at < most) {
              await stepBackIn(id, step);
              at += step === 'undo' ? -1 : 1;
              expect((await newestPart(id)).document).toEqual(then[at]);
            }
          }
          for (const [n, was] of then.entries())
            expect(await documentAt(await database(), id, n + 1)).toEqual(was);
          letGo(id);
          for (const [n, was] of then.entries())
            expect(await documentAt(await database(), id, n + 1)).toEqual(was);
        },
      ),
      { numRuns: 12 },
    );
    expect(edits).toBeGreaterThan(12);
  });

  test('two who edit an old revision: both are done where they set different things, and the answers bring both along', async () => {
    const { id } = await makePart([talkgroupOf(1), talkgroupOf(2)]);
    await editDocument(id, 1, rename(1, 'Watch'));
    const late = await editDocument<GeneralEdit>(id, 1, rename(2, 'Port'));
    expect(late).toMatchObject({ revision: 3, label: 'Change name of the talkgroup “Group 2”' });
    expect(late.edits).toEqual([rename(1, 'Watch'), rename(2, 'Port')]);
    await expect(editDocument(id, 1, rename(1, 'Mine'))).rejects.toMatchObject({
      kind: 'stale-edit',
      detail: '“Group 1” was changed meanwhile (name). Look at it and try again.',
    });
    await expect(editDocument(id, 9, rename(1, 'Mine'))).rejects.toMatchObject({ kind: 'unknown-revision' });
    await expect(editDocument(id, 3, rename(7, 'None'))).rejects.toMatchObject({
      kind: 'edit-refused',
      detail: 'The talkgroup tg_part0007 is not in the part any more.',
    });
  });

  test('a change that is sent again is answered again, and its key is for nothing else', async () => {
    const { id } = await makePart([talkgroupOf(1)]);
    const asker = key();
    const answer = await editDocument(id, 1, rename(1, 'Watch'), asker);
    await editDocument(id, 2, rename(1, 'Later'));
    expect(await editDocument(id, 1, rename(1, 'Watch'), asker)).toEqual(answer);
    const undoing = key();
    const undone = await stepBackIn(id, 'undo', undoing);
    await editDocument(id, 4, rename(1, 'Last'));
    expect(await stepBackIn(id, 'undo', undoing)).toEqual(undone);
    expect((await newestPart(id)).revision).toBe(5);
    await expect(editDocument(id, 5, rename(1, 'Other'), asker)).rejects.toMatchObject({ kind: 'key-used' });
  });

  test('those who look at it are told of each revision, and its history is in words and is searched', async () => {
    const { id } = await makePart([talkgroupOf(1)]);
    const told: Told[] = [];
    const leave = onRevision(id, (one) => told.push(one));
    await editDocument(id, 1, rename(1, 'Watch'));
    await editDocument(id, 2, { name: 'describe', set: { note: 'for the harbour' } });
    await stepBackIn(id, 'undo');
    leave();
    await stepBackIn(id, 'undo');
    expect(told.map(({ revision, label }) => [revision, label])).toEqual([
      [2, 'Change name of the talkgroup “Group 1”'],
      [3, 'Change note of the part'],
      [4, 'Change note of the part'],
    ]);
    const labels = async (search?: string) =>
      (await documentLog(id, undefined, 10, { search })).edits.map(({ label, kind }) => `${kind}: ${label}`);
    expect(await labels()).toEqual([
      'undo: Change name of the talkgroup “Group 1”',
      'undo: Change note of the part',
      'edit: Change note of the part',
      'edit: Change name of the talkgroup “Group 1”',
    ]);
    expect(await labels('NOTE of')).toHaveLength(2);
  });

  test(`a snapshot every ${SNAPSHOT_EVERY} revisions is used on the way back`, async () => {
    const { id } = await makePart([talkgroupOf(1)]);
    for (let n = 1; n <= SNAPSHOT_EVERY + 1; n++) await editDocument(id, n, rename(1, `Name ${n}`));
    letGo(id);
    expect((await documentAt<Part>(await database(), id, 120)).talkgroups[0]!.name).toBe('Name 119');
  });

  test('is no plan: no list of plans has it, and its value is what the tables have', async () => {
    const { id } = await makePart([talkgroupOf(1)]);
    expect((await planNames()).map((one) => one.id)).not.toContain(id);
    const { plans, total } = await pageOfPlans({});
    expect(plans).toHaveLength(total);
    expect(plans.some((one) => (one.id as string) === id)).toBe(false);
    expect(JSON.parse(await rawDocument(id))).toEqual((await newestPart(id)).document);
  });

  test('what would be none is not saved', async () => {
    await expect(
      createDocument({ ...part('pt_nothing1'), note: 3 } as never, NOBODY, {}),
    ).rejects.toMatchObject({
      kind: 'no-plan',
      detail: expect.stringContaining('Its document is no part: note'),
    });
  });
});

describe('several at once', () => {
  /** What takes a talkgroup out of one and puts it into another. */
  const moving = (from: { id: string; base: number }, to: { id: string; base: number }, n: number) => [
    { ...from, edit: { name: 'remove', kind: 'talkgroup', ids: [tg(n)] } as GeneralEdit },
    {
      ...to,
      edit: { name: 'put', kind: 'talkgroup', records: [talkgroupOf(n)], before: null } as GeneralEdit,
    },
  ];
  const groupsOf = async (id: string) => (await inTables(id)).talkgroups.map((one) => one.id);

  test('all or none', async () => {
    const [one, other] = [await makePart([talkgroupOf(1), talkgroupOf(2)]), await makePart([talkgroupOf(2)])];
    const both = (n: number) => moving({ id: one.id, base: 1 }, { id: other.id, base: 1 }, n);
    // The second cannot be done: the other has that talkgroup already.
    await expect(editSeveral(both(2))).rejects.toMatchObject({ kind: 'edit-refused' });
    expect([await groupsOf(one.id), await groupsOf(other.id)]).toEqual([[tg(1), tg(2)], [tg(2)]]);
    expect((await newestPart(one.id)).revision).toBe(1);
    const answers = await editSeveral(both(1));
    expect(answers).toMatchObject([
      { id: one.id, revision: 2, label: 'Remove the talkgroup “Group 1”' },
      { id: other.id, revision: 2, label: 'Add the talkgroup “Group 1”' },
    ]);
    expect([await groupsOf(one.id), await groupsOf(other.id)]).toEqual([[tg(2)], [tg(2), tg(1)]]);
    await expect(editSeveral([])).rejects.toMatchObject({ kind: 'edit-refused' });
    await expect(editSeveral([both(2)[0]!, both(2)[0]!])).rejects.toMatchObject({ kind: 'edit-refused' });
  });

  test('undo in one undoes it in all, redo does it again, and where another has changed since nothing is done', async () => {
    const [one, other] = [await makePart([talkgroupOf(1)]), await makePart()];
    await editSeveral(moving({ id: one.id, base: 1 }, { id: other.id, base: 1 }, 1));
    expect(await stepBackIn(other.id, 'undo')).toMatchObject({
      revision: 3,
      undo: null,
      redo: 'Add the talkgroup “Group 1”',
    });
    expect([await groupsOf(one.id), await groupsOf(other.id)]).toEqual([[tg(1)], []]);
    await stepBackIn(one.id, 'redo');
    expect([await groupsOf(one.id), await groupsOf(other.id)]).toEqual([[], [tg(1)]]);
    await editDocument(other.id, 4, { name: 'describe', set: { name: 'The other one' } });
    await expect(stepBackIn(one.id, 'undo')).rejects.toMatchObject({
      kind: 'stale-edit',
      detail:
        'This change was made to several documents at once, and “The other one” was changed after it. Nothing was changed; undo the later changes there first.',
    });
    expect([await groupsOf(one.id), await groupsOf(other.id)]).toEqual([[], [tg(1)]]);
    await stepBackIn(other.id, 'undo');
    await stepBackIn(one.id, 'undo');
    expect([await groupsOf(one.id), await groupsOf(other.id)]).toEqual([[tg(1)], []]);
    expect([(await newestPart(one.id)).revision, (await newestPart(other.id)).revision]).toEqual([5, 7]);
  });

  test('sent again with its key it is answered again and not done again', async () => {
    const [one, other] = [await makePart([talkgroupOf(1)]), await makePart()];
    const edits = moving({ id: one.id, base: 1 }, { id: other.id, base: 1 }, 1);
    const asker = key();
    const answers = await editSeveral(edits, asker);
    await editDocument(one.id, 2, { name: 'describe', set: { note: 'later' } });
    expect(await editSeveral(edits, asker)).toEqual(answers);
    expect((await newestPart(other.id)).revision).toBe(2);
    await expect(editSeveral(edits.slice(1), asker)).rejects.toMatchObject({ kind: 'key-used' });
  });

  test('where one of them is not at its revision any more, nothing of the others is saved', async () => {
    const [one, other] = [await makePart([talkgroupOf(1)]), await makePart([talkgroupOf(1)])];
    const step = ({ id }: Part, from: number): StepToKeep => ({
      ...{
        id,
        from,
        name: 'Changed',
        model: null,
        head: { note: '' },
        bytes: 1,
        undoHead: 2,
        redoHead: null,
      },
      ...{ kind: 'edit', edit: '{}', inverse: '{}', logBytes: 4, label: { of: 'go back', revision: 1 } },
      ...{ beforeUndo: null, beforeRedo: null, changeId: 'change', key: null, request: '' },
      receipt: { revision: from + 1, answerFrom: null },
      rows: { put: [], gone: [{ kind: 'talkgroup', id: tg(1) }] },
    });
    const both = async (from: number) => keepSteps(await database(), [step(one, 1), step(other, from)]);
    expect(await both(2)).toBe(false);
    for (const { id } of [one, other]) {
      expect(await groupsOf(id)).toEqual([tg(1)]);
      expect((await documentLog(id, undefined, 10)).edits).toEqual([]);
    }
    expect(await both(1)).toBe(true);
    for (const { id } of [one, other]) expect(await groupsOf(id)).toEqual([]);
  });

  test('many at once between three documents, each in both orders: every talkgroup is in one of them, and each move is whole', async () => {
    const parts = [
      await makePart(Array.from({ length: 12 }, (_, n) => talkgroupOf(n))),
      await makePart(),
      await makePart(),
    ];
    let moved = 0;
    await Promise.all(
      Array.from({ length: 60 }, async (_, n) => {
        const [from, to] = [parts[n % 3]!, parts[(n + 1 + (n % 2)) % 3]!];
        const at = async ({ id }: Part) => ({ id, base: (await newestPart(id)).revision });
        try {
          await editSeveral(moving(await at(from), await at(to), (n * 7) % 12));
          moved++;
        } catch (error) {
          expect(error).toMatchObject({ kind: expect.stringMatching(/^(edit-refused|stale-edit)$/) });
        }
      }),
    );
    expect(moved).toBeGreaterThan(0);
    const all = (await Promise.all(parts.map(({ id }) => groupsOf(id)))).flat();
    expect([...all].sort()).toEqual(Array.from({ length: 12 }, (_, n) => tg(n)));
    // A move is a revision of each of its two documents.
    const revisions = await Promise.all(parts.map(async ({ id }) => (await newestPart(id)).revision - 1));
    expect(revisions.reduce((sum, n) => sum + n, 0)).toBe(2 * moved);
  });
});

test('a backup has them, and counts plans by themselves', async () => {
  const { name } = await makeBackup('request');
  const file = (await backupFile(name))!;
  const { total } = await pageOfPlans({});
  expect(await checkBackup(file)).toMatchObject({ ok: true, value: { plans: total } });
  const text = gunzipSync(readFileSync(file)).toString();
  expect(text.match(/"type": ?"part"/g)!.length).toBe(partsMade());
});
