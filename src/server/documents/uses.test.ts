import type { GeneralEdit } from '../../core/document';
import type { Plan, PlanId, TalkgroupId } from '../../core/plan';
import { talkgroupOf, tg, type Part } from '../../core/part.test.kit';
import { digital } from '../../core/digital.test.kit';
import { id as channelId } from '../../core/samples.test.kit';
import { dataFolder } from '../data-folder.test.kit';
import { exportPlan } from '../export';
import { planNames } from '../plan-list';
import { createPlan, fitPlan, getPlan, getView } from '../plans';
import { makePart, newestPart } from './parts.test.kit';
import { editDocument, editSeveral, stepBackIn } from './revisions';

dataFolder('uses');

describe('plans that use one', () => {
  const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };
  /** A plan whose channel calls a talkgroup of a part. */
  const calling = async (one: Part, revision: number, n: number): Promise<Plan> => {
    const talkgroup = `${one.id}.${tg(n)}` as TalkgroupId;
    const { plan } = await createPlan(
      { name: `Calls ${n}`, modelId: 'kestrel-c1', owner },
      { channels: [digital(1, { talkgroup })], uses: [{ document: one.id, revision }] },
    );
    return plan;
  };
  const numbers = async (id: PlanId) => (await getView(id)).plan.talkgroups.map(({ number }) => number);

  test('each at its revision: what changes in it later changes no plan until that moves on', async () => {
    const harbour = await makePart([talkgroupOf(1, 4711), talkgroupOf(2, 4712)]);
    const first = await calling(harbour, 1, 1);
    await editDocument(harbour.id, 1, {
      name: 'change',
      kind: 'talkgroup',
      changes: [{ id: tg(1), set: { number: 99 } }],
    });
    const second = await calling(harbour, 2, 1);
    expect([await numbers(first.id), await numbers(second.id)]).toEqual([
      [4711, 4712],
      [99, 4712],
    ]);
    const { fit } = JSON.parse((await fitPlan(second.id)).text) as {
      fit: { talkgroups: { address: number }[] };
    };
    expect(fit.talkgroups.map(({ address }) => address)).toEqual([99, 4712]);
    await editDocument(first.id, 1, {
      name: 'describe',
      set: { uses: [{ document: harbour.id, revision: 2 }] },
    });
    expect(await numbers(first.id)).toEqual([99, 4712]);
    await stepBackIn(first.id, 'undo');
    expect(await numbers(first.id)).toEqual([4711, 4712]);
    // The plan itself has none of them.
    expect((await getPlan(first.id)).plan.talkgroups).toEqual([]);
  });

  test('a change that would leave a reference without its record is refused, and says which', async () => {
    const harbour = await makePart([talkgroupOf(1), talkgroupOf(2)]);
    await editDocument(harbour.id, 1, { name: 'remove', kind: 'talkgroup', ids: [tg(1)] });
    const { id } = await calling(harbour, 1, 1);
    const use = (revision: number, document = harbour.id) =>
      editDocument(id, 1, { name: 'describe', set: { uses: [{ document, revision }] } });
    await expect(use(2)).rejects.toMatchObject({
      kind: 'edit-refused',
      detail: `The channel ${channelId(1)} names ${harbour.id}.${tg(1)}, and there is no such talkgroup in “Harbour watch” at revision 2. Nothing was changed.`,
    });
    await expect(use(3)).rejects.toMatchObject({
      detail: '“Harbour watch” has no revision 3; its newest is 2. Nothing was changed.',
    });
    await expect(use(1, 'pt_nobody01')).rejects.toMatchObject({ status: 404 });
    const other = await createPlan({ name: 'Other', modelId: 'kestrel-c1', owner });
    await expect(use(1, other.plan.id)).rejects.toMatchObject({
      detail: `A plan cannot use ${other.plan.id}. Nothing was changed.`,
    });
    expect((await getPlan(id)).revision).toBe(1);
    await expect(
      createPlan(
        { name: 'None', modelId: 'kestrel-c1', owner },
        { uses: [{ document: harbour.id, revision: 9 }] },
      ),
    ).rejects.toMatchObject({ kind: 'edit-refused' });
    expect((await planNames()).map(({ name }) => name)).not.toContain('None');
  });

  test('a change of the part and of both plans, in all or in none', async () => {
    const harbour = await makePart([talkgroupOf(1, 4711)]);
    const plans = [await calling(harbour, 1, 1), await calling(harbour, 1, 1)];
    const renumber: GeneralEdit = {
      name: 'change',
      kind: 'talkgroup',
      changes: [{ id: tg(1), set: { number: 4800 } }],
    };
    const moveOn = { name: 'describe', set: { uses: [{ document: harbour.id, revision: 2 }] } };
    const all = (base: number) => [
      { id: harbour.id, base: 1, edit: renumber },
      ...plans.map(({ id }) => ({ id, base, edit: moveOn })),
    ];
    // A plan that has been changed meanwhile: nothing is done, and the part is what it was.
    await expect(editSeveral(all(2))).rejects.toMatchObject({ kind: 'unknown-revision' });
    expect((await newestPart(harbour.id)).revision).toBe(1);
    await editSeveral(all(1));
    expect(await Promise.all(plans.map(({ id }) => numbers(id)))).toEqual([[4800], [4800]]);
    expect((await newestPart(harbour.id)).revision).toBe(2);
    await stepBackIn(plans[1]!.id, 'undo');
    expect(await Promise.all(plans.map(({ id }) => numbers(id)))).toEqual([[4711], [4711]]);
    expect((await newestPart(harbour.id)).document.talkgroups).toEqual([talkgroupOf(1, 4711)]);
  });

  test('a file of it has the records themselves', async () => {
    const harbour = await makePart([talkgroupOf(1, 4711)]);
    const { id } = await calling(harbour, 1, 1);
    const { file } = await exportPlan(id, 'json');
    const written = JSON.parse(Buffer.from(file).toString()) as Plan;
    expect(written.uses).toEqual([]);
    expect(written.talkgroups).toEqual([talkgroupOf(1, 4711)]);
    expect(written.channels[0]!.talkgroup).toBe(tg(1));
  });
});
