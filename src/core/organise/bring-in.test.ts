import * as fc from '../property.test.kit';
import { fit } from '../fit';
import { gannetM8 } from '../models/gannet-m8';
import { digital, groupId, receiveId, scanId } from '../digital.test.kit';
import { kestrelC1 } from '../models/kestrel-c1';
import { ternP2 } from '../models/tern-p2';
import { ternP3 } from '../models/tern-p3';
import { danglingFault, editSchema, idsOf, type Edit, type Plan } from '../plan';
import { anyPlan, channel, id, plan, run, zoneId } from '../samples.test.kit';
import { bringIn } from '.';

/** A bought or a friend's list, put into one's own radio. */

let n = 0;
const newId = idsOf(() => Uint8Array.from(String(++n).padStart(8, '0'), Number));
const after = (own: Plan, edit: Edit | null) => (edit ? run(own, edit) : own);
const list = plan([
  channel(1, 145_500_000, { name: 'Calling' }),
  channel(2, 224_300_000, { name: 'Two and a quarter', tx: 222_700_000 }),
  channel(3, 433_500_000, { name: 'Seventy' }),
  channel(4, 439_000_000, { name: 'Digital', mode: 'DMR' }),
]);
const mine = plan([
  channel(1, 145_500_000, { name: 'Mine, the same' }),
  channel(7, 145_525_000, { name: 'Mine' }),
]);

test('a list for three bands goes into a radio that has two of them; the rest is listed', () => {
  const { edit, goes, left } = bringIn(mine, list, ternP2, { clear: false, from: 1, sides: {} }, newId);
  expect(goes).toEqual([{ name: 'Seventy', list: 0, slot: 2 }]);
  expect(left).toEqual([
    { name: 'Calling', because: 'it is there already' },
    { name: 'Two and a quarter', because: 'this radio does not tune there' },
    { name: 'Digital', because: 'this radio lacks the mode' },
  ]);
  expect(after(mine, edit).channels.map(({ name, slot }) => [name, slot])).toEqual([
    ['Mine, the same', 1],
    ['Seventy', 2],
    ['Mine', 7],
  ]);
});

test('one’s own go first where that is wished; slots are counted from there', () => {
  const { edit, goes } = bringIn(mine, list, ternP3, { clear: true, from: 10, sides: {} }, newId);
  expect(goes.map(({ slot }) => slot)).toEqual([10, 11, 12]);
  expect(after(mine, edit).channels.map(({ name }) => name)).toEqual([
    'Calling',
    'Two and a quarter',
    'Seventy',
  ]);
});

test('bands go to their sides, zones come along, home channels stay', () => {
  const zoned = {
    ...list,
    zones: [{ id: zoneId(1), name: 'All', members: list.channels.map((one) => one.id) }],
  };
  const own = {
    ...mine,
    channels: [...mine.channels, { ...channel(8, 145_375_000, { name: 'Home' }), list: 2, slot: 1 }],
  };
  const wish = { clear: true, from: 1, sides: { '2 m': 0, '70 cm': 1 } };
  const made = after(own, bringIn(own, zoned, gannetM8, wish, newId).edit);
  expect(made.channels.map(({ name, list: on, slot }) => [name, on, slot])).toEqual([
    ['Calling', 0, 1],
    ['Seventy', 1, 1],
    ['Home', 2, 1],
  ]);
  expect(made.zones.map(({ name, members }) => [name, members.length])).toEqual([['All', 2]]);
});

describe('a digital plan', () => {
  const group = (n: number, number: number, name: string) => ({
    ...{ id: groupId(n), number, name, call: 'group' as const },
  });
  const friend: Plan = {
    ...plan([
      digital(1, {
        name: 'Hill isles',
        talkgroup: groupId(1),
        receiveList: receiveId(1),
        scanList: scanId(1),
      }),
      digital(3, {
        name: 'Hill boats',
        talkgroup: groupId(2),
        receiveList: receiveId(1),
        scanList: scanId(1),
      }),
    ]),
    modelId: 'kestrel-c1',
    talkgroups: [group(1, 100, 'Isles'), group(2, 200, 'Boats'), group(3, 300, 'Nobody’s')],
    receiveLists: [{ id: receiveId(1), name: 'All', members: [groupId(1), groupId(2)] }],
    scanLists: [
      {
        ...{ id: scanId(1), name: 'Round', members: [id(3), id(1)], first: id(3), second: null },
        ...{ answers: 'first', startsItself: true },
      },
    ],
    zones: [
      {
        ...{ id: zoneId(1), name: 'Team', members: [id(1), id(3)] },
        knob: [{ channel: id(3) }, { channel: null }, { channel: id(1) }],
      },
    ],
  };
  const wish = { clear: false, from: 1, sides: {} };
  // One's own Isles has another name and the same number, and a list is called All already.
  const own: Plan = {
    ...plan([]),
    modelId: 'kestrel-c1',
    talkgroups: [group(7, 100, 'The isles')],
    receiveLists: [{ id: receiveId(7), name: 'all', members: [groupId(7)] }],
  };

  test('comes with its talkgroups and lists: both channels of one repeater, each calling whom it called', () => {
    const { edit, comes, stays } = bringIn(own, friend, kestrelC1, wish, newId);
    expect([comes, stays]).toEqual([['1 talkgroup', '1 receive list', '1 scan list', '1 zone'], []]);
    const made = after(own, edit);
    const names = (of: readonly { id: string; name: string }[]) =>
      new Map(of.map((one) => [one.id, one.name]));
    const [channels, groups] = [names(made.channels), names(made.talkgroups)];
    expect(made.channels.map((one) => [one.name, groups.get(one.talkgroup!)])).toEqual([
      ['Hill isles', 'The isles'],
      ['Hill boats', 'Boats'],
    ]);
    expect(
      made.receiveLists.map(({ name, members }) => [name, members.map((one) => groups.get(one))]),
    ).toEqual([
      ['all', ['The isles']],
      ['All 2', ['The isles', 'Boats']],
    ]);
    expect(new Set(made.channels.map((one) => one.receiveList))).toEqual(new Set([made.receiveLists[1]!.id]));
    const [scan] = made.scanLists;
    expect(scan).toMatchObject({ name: 'Round', answers: 'first', startsItself: true });
    expect([scan!.members.map((one) => channels.get(one)), channels.get(scan!.first!)]).toEqual([
      ['Hill boats', 'Hill isles'],
      'Hill boats',
    ]);
    expect(made.channels.map((one) => one.scanList)).toEqual([scan!.id, scan!.id]);
    expect(made.zones[0]!.knob!.map(({ channel: at }) => at && channels.get(at))).toEqual([
      'Hill boats',
      null,
      'Hill isles',
    ]);
    expect(danglingFault(made)).toBeNull();
  });

  test('comes once: the same plan again finds everything there', () => {
    const made = after(own, bringIn(own, friend, kestrelC1, wish, newId).edit);
    const again = bringIn(made, friend, kestrelC1, wish, newId);
    expect(again.edit).toBeNull();
    expect(again.left.map(({ because }) => because)).toEqual(['it is there already', 'it is there already']);
  });

  test('what an analogue radio has none of is said to stay', () => {
    const mixed: Plan = {
      ...friend,
      channels: [
        { ...channel(1, 433_500_000, { name: 'Analogue' }), talkgroup: groupId(1), scanList: scanId(1) },
      ],
    };
    const { stays, edit } = bringIn(plan([]), mixed, ternP2, wish, newId);
    expect(stays).toEqual([
      'Talkgroups and receive lists stay behind: the Tern P2 has none.',
      'Scan lists stay behind: the Tern P2 has none.',
    ]);
    expect(after(plan([]), edit).channels[0]).toMatchObject({ talkgroup: null, scanList: null });
  });

  test('what found no room in the other radio finds some here', () => {
    const { slot: _, list: _list, ...waits } = channel(9, 145_525_000, { name: 'Waits' });
    const { goes } = bringIn(plan([]), { ...plan([]), leftOver: [waits] }, ternP2, wish, newId);
    expect(goes).toEqual([{ name: 'Waits', list: 0, slot: 1 }]);
  });
});

test('whatever comes in is held, and nothing is forgotten', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      anyPlan,
      anyPlan,
      fc.boolean(),
      fc.constantFrom(ternP2, ternP3, gannetM8),
      (own, source, clear, model) => {
        const { edit, goes, left } = bringIn(own, source, model, { clear, from: 1, sides: {} }, newId);
        expect(goes.length + left.length).toBe(source.channels.length + source.leftOver.length);
        const made = after(own, edit);
        const held = fit(made, model);
        const mineBefore = new Set(own.channels.map((one) => one.id));
        const brought = made.channels.filter((one) => !mineBefore.has(one.id));
        expect(brought).toHaveLength(goes.length);
        const out = new Set(held.leftOut.map((one) => one.id));
        expect(brought.filter((one) => out.has(one.id))).toEqual([]);
        // where nothing can come in, one's own stay
        expect(edit !== null).toBe(goes.length > 0);
        if (clear && edit) expect(made.channels).toHaveLength(goes.length);
        if (edit) expect(editSchema.safeParse(edit).error).toBeUndefined();
        reached.count('goes', goes.length > 0);
      },
    ),
  );
  reached.expectShare('goes', 0.6);
});
