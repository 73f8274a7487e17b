import {
  alikeIn,
  differenceOf,
  inverseBetween,
  isNothing,
  outcomeFault,
  reading,
  rebaseOn,
  resolved,
  standalone,
} from './document';
import {
  applyEdit,
  outcomeFault as planFault,
  PLAN_STRUCTURE,
  readDocument,
  type Plan,
  type ReceiveListId,
  type TalkgroupId,
} from './plan';
import { atOnce } from './stepwise';
import { editFor, listOf, part, PART_TYPE, rl, talkgroupOf, tg, wishes, type Part } from './part.test.kit';
import * as fc from './property.test.kit';
import { channel, plan } from './samples.test.kit';
import { fit } from './fit';
import { contentToWrite } from './check';
import { blankImage } from './format';
import { encodeImage } from './image';
import { MODELS } from './models';
import { formatOf } from './models/formats';
import { digital } from './digital.test.kit';

/** What works on documents works on a second type as it does on plans; and a plan that uses such a document is read as one that has its records itself. */

const { shape } = PART_TYPE;
const asText = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
const ok = <T>(result: { ok: true; value: T } | { ok: false; reason: string }): T => {
  if (!result.ok) throw new Error(result.reason);
  return result.value;
};

describe('a small type', () => {
  test('any edits: each is undone by its inverse, can be read again from a log, and leaves a document of its type', () => {
    let done = 0;
    fc.assert(
      fc.property(wishes, (all) => {
        let now = part('pt_harbour', [talkgroupOf(0), talkgroupOf(1)], [listOf(0, [1])]);
        for (const one of all) {
          const edit = editFor(one, now);
          if (!edit) continue;
          const read = atOnce(PART_TYPE.readingEdit(asText(edit)));
          expect(read).toEqual(edit);
          const result = PART_TYPE.apply(now, edit);
          // A talkgroup that is there already is not put again.
          if (!result.ok) {
            expect(result.reason).toMatch(/^The (talkgroup|receive list) \w+ would be there twice\.$/);
            continue;
          }
          const next = result.value;
          expect(atOnce(outcomeFault(shape, now, next))).toBeNull();
          expect(atOnce(reading<Part>(shape, asText(next)))).toEqual({ ok: true, value: next });
          const back = atOnce(PART_TYPE.readingEdit(asText(inverseBetween(PART_TYPE, now, next))));
          expect(PART_TYPE.apply(next, back)).toEqual({ ok: true, value: now });
          // What comes from elsewhere and is alike is no difference.
          expect(isNothing(differenceOf(shape, next, alikeIn(shape, next, asText(next))))).toBe(true);
          expect(PART_TYPE.labelWords(asText(PART_TYPE.label(edit, now)))).toMatch(
            /^(Add|Change|Remove|Order) /,
          );
          now = next;
          done++;
        }
      }),
    );
    expect(done).toBeGreaterThan(500);
  });

  test('labels are words of its kinds, with the names that the records had', () => {
    const now = part('pt_harbour', [talkgroupOf(1), talkgroupOf(2)]);
    const words = (edit: Parameters<typeof PART_TYPE.apply>[1]) =>
      PART_TYPE.labelWords(PART_TYPE.label(edit, now));
    expect(words({ name: 'put', kind: 'talkgroup', records: [talkgroupOf(3)], before: null })).toBe(
      'Add the talkgroup “Group 3”',
    );
    expect(words({ name: 'remove', kind: 'talkgroup', ids: [tg(1), tg(2)] })).toBe('Remove 2 talkgroups');
    expect(words({ name: 'change', kind: 'talkgroup', changes: [{ id: tg(1), set: { number: 9 } }] })).toBe(
      'Change number of the talkgroup “Group 1”',
    );
    expect(words({ name: 'describe', set: { note: 'x' } })).toBe('Change note of the part');
    expect(words({ name: 'restore', records: { talkgroup: { put: [], remove: [tg(1)] } } })).toBe(
      'Restore 1 talkgroup',
    );
    expect(PART_TYPE.labelWords({ of: 'place', n: 1 })).toBeNull();
  });

  test('two edits of an old revision: of different fields both are done, of the same one the second is refused', () => {
    const base = part('pt_harbour', [talkgroupOf(1), talkgroupOf(2)]);
    const change = (n: number, set: object) => ({
      name: 'change' as const,
      kind: 'talkgroup',
      changes: [{ id: tg(n), set }],
    });
    const asChanged = (edit: ReturnType<typeof change>) => ok(PART_TYPE.apply(base, asText(edit)));
    const newest = asChanged(change(1, { number: 77 }));
    expect(
      ok(rebaseOn(PART_TYPE, asText(change(1, { name: 'Watch' })), { base, newest })).talkgroups[0],
    ).toEqual({
      ...talkgroupOf(1),
      number: 77,
      name: 'Watch',
    });
    expect(rebaseOn(PART_TYPE, asText(change(1, { number: 78 })), { base, newest })).toEqual({
      ok: false,
      reason: '“Group 1” was changed meanwhile (number). Look at it and try again.',
    });
    const noted = ok(PART_TYPE.apply(base, { name: 'describe', set: { note: 'mine' } }));
    expect(
      rebaseOn(PART_TYPE, { name: 'describe', set: { note: 'theirs' } }, { base, newest: noted }),
    ).toEqual({
      ok: false,
      reason: 'The details of this part were changed meanwhile. Look at them and try again.',
    });
  });

  test('a document of its first format is read; what is none is refused with the place', () => {
    const { note: _, ...first } = part('pt_harbour', [talkgroupOf(1)]);
    expect(atOnce(reading(shape, { ...first, format: 1 }))).toEqual({
      ok: true,
      value: part('pt_harbour', [talkgroupOf(1)]),
    });
    const many = Array.from({ length: 60 }, (_one, n) => talkgroupOf(n));
    const wrong = { ...part('pt_harbour', many), talkgroups: [...many, { ...talkgroupOf(99), number: -1 }] };
    expect(atOnce(reading(shape, wrong))).toEqual({
      ok: false,
      reason: 'Its document is no part: talkgroups.60.number is not what a part holds there.',
    });
    expect(atOnce(reading(shape, part('pt_harbour', [], [listOf(1, [7])])))).toEqual({
      ok: false,
      reason:
        'Its document is no part: The receive list rl_part0001 names tg_part0007, and there is no such talkgroup in the part.',
    });
  });

  test('edits that are none are refused when they are read', () => {
    for (const edit of [
      { name: 'put', kind: 'zone', records: [], before: null },
      { name: 'place', channels: [] },
      { name: 'change', kind: 'talkgroup', changes: [{ id: tg(1), set: { colour: 1 } }] },
      { name: 'describe', set: { uses: [] } },
    ])
      expect(() => atOnce(PART_TYPE.readingEdit(edit))).toThrow();
  });
});

const foreign = (n: number, of = 'pt_harbour') => `${of}.${tg(n)}` as TalkgroupId;
const using = (now: Plan, revision = 4): Plan => ({ ...now, uses: [{ document: 'pt_harbour', revision }] });
const used = (one: Part) => new Map([[one.id, { shape, document: one }]]);

describe('a plan that uses a part', () => {
  const groups = [talkgroupOf(1), talkgroupOf(2, 9_990), talkgroupOf(3, 16_000)];
  const harbour = part('pt_harbour', groups, [listOf(1, [1, 3]), listOf(2, [2])]);
  /** Digital channels that call the talkgroups of the part, by the ids that `of` makes of its own. */
  const calling = (of: (id: string) => string): Plan => ({
    ...plan(
      [1, 2, 3].map((n) =>
        digital(n, {
          talkgroup: of(tg(n)) as TalkgroupId,
          receiveList: of(rl(n === 2 ? 2 : 1)) as ReceiveListId,
        }),
      ),
    ),
    modelId: 'kestrel-c1',
  });

  test('is in the radio what it would be with the records of its own, byte by byte', () => {
    const models = MODELS.filter((model) => model.digital);
    expect(models.length).toBeGreaterThan(1);
    for (const model of models) {
      const own = { ...calling((id) => id), talkgroups: groups, receiveLists: harbour.receiveLists };
      const mine = using(calling((id) => `pt_harbour.${id}`));
      expect(readDocument(asText(mine))).toEqual({ ok: true, value: mine });
      const { document: view, missing } = resolved(PLAN_STRUCTURE, mine, used(harbour));
      expect(missing).toEqual([]);
      const bytes = (one: Plan) =>
        Buffer.from(
          encodeImage(contentToWrite(one, model, fit(one, model), []), blankImage(formatOf(model)), model),
        );
      expect(bytes(view).equals(bytes(own))).toBe(true);
      // Without what it uses it would be another one.
      const without = resolved(PLAN_STRUCTURE, mine, new Map());
      expect(bytes(without.document).equals(bytes(own))).toBe(false);
      expect(without.missing).toHaveLength(6);
    }
  });

  test('its own records come first, and the view has every record once', () => {
    const mine = using({ ...plan([]), talkgroups: [talkgroupOf(1)] });
    const { document: view } = resolved(PLAN_STRUCTURE, mine, used(harbour));
    expect(view.talkgroups.map(({ id }) => id)).toEqual([tg(1), foreign(1), foreign(2), foreign(3)]);
    expect(view.receiveLists[0]).toMatchObject({
      id: 'pt_harbour.rl_part0001',
      members: [foreign(1), foreign(3)],
    });
    // The plan is what it was, and one that uses nothing is its own view.
    expect(mine.talkgroups).toHaveLength(1);
    const alone = plan([]);
    expect(resolved(PLAN_STRUCTURE, alone, used(harbour)).document).toBe(alone);
  });

  test('what the part does not have is named and left out of the view', () => {
    const mine = using({
      ...plan([channel(1, 145_500_000, { talkgroup: foreign(9) })]),
      receiveLists: [{ ...listOf(5, []), members: [foreign(1), foreign(8)] }],
    });
    const { document: view, missing } = resolved(PLAN_STRUCTURE, mine, used(harbour));
    expect(missing).toEqual([
      { kind: 'channel', id: mine.channels[0]!.id, to: 'talkgroup', reference: foreign(9) },
      { kind: 'receiveList', id: rl(5), to: 'talkgroup', reference: foreign(8) },
    ]);
    expect(view.channels[0]!.talkgroup).toBeNull();
    expect(view.receiveLists[0]!.members).toEqual([foreign(1)]);
  });

  test('refers to documents that it uses, and to no others', () => {
    const calls = plan([channel(1, 145_500_000, { talkgroup: foreign(1) })]);
    expect(readDocument(calls)).toEqual({
      ok: false,
      reason: `Its document is no plan: The channel ${calls.channels[0]!.id} names ${foreign(1)}, and the plan does not use pt_harbour.`,
    });
    expect(readDocument(using(calls))).toEqual({ ok: true, value: using(calls) });
    // A record of its own cannot have the id of another document's.
    expect(readDocument(using({ ...calls, talkgroups: [{ ...talkgroupOf(1), id: foreign(1) }] })).ok).toBe(
      false,
    );
    // Where it stops using one, what referred to that refers to nothing; undo brings it back.
    const before = using(calls);
    const after = ok(applyEdit(before, { name: 'describe', set: { uses: [] } }));
    expect(after.channels[0]!.talkgroup).toBeNull();
    expect(planFault(before, after)).toBeNull();
    expect(planFault(before, { ...before, uses: [] })).toContain('the plan does not use pt_harbour');
  });

  test('on its own it has the records itself, under ids that nothing else has', () => {
    const mine = using({ ...calling((id) => `pt_harbour.${id}`), talkgroups: [talkgroupOf(1, 555)] });
    const { document: view } = resolved(PLAN_STRUCTURE, mine, used(harbour));
    const alone = standalone(PLAN_STRUCTURE, view);
    expect(readDocument(asText(alone))).toEqual({ ok: true, value: alone });
    expect(alone.talkgroups.map(({ id, number }) => [id, number])).toEqual([
      [tg(1), 555],
      [`${tg(1)}2`, 2],
      [tg(2), 9_990],
      [tg(3), 16_000],
    ]);
    expect(alone.channels.map((one) => one.talkgroup)).toEqual([`${tg(1)}2`, tg(2), tg(3)]);
    expect(alone.receiveLists[0]!.members).toEqual([`${tg(1)}2`, tg(3)]);
  });
});
