import * as fc from '../property.test.kit';
import { contentToWrite } from '../check';
import { blankImage } from '../format';
import { decodeImage, encodeImage, planOfContent } from '../image';
import { face, MODELS, sidesOf, slotsOf, type Model } from '../models';
import { curlewX1 } from '../models/curlew-x1';
import { formatOf } from '../models/formats';
import { gannetM8 } from '../models/gannet-m8';
import { kestrelC1 } from '../models/kestrel-c1';
import { ospreyD7 } from '../models/osprey-d7';
import { petrelHF9 } from '../models/petrel-hf9';
import { ploverF5 } from '../models/plover-f5';
import { idsOf, type Plan, type ScanEdgeId, type SetUpId, type SkipSetId } from '../plan';
import { anyPlan, channel, id, plan, zoneId } from '../samples.test.kit';
import { digital, groupId } from '../digital.test.kit';
import { fit } from '.';

/** What each of the models makes of a plan. */

const tone = (tenths: number) => ({ kind: 'tone' as const, tone: tenths });
const analogue = (send: ReturnType<typeof tone> | null, expect: ReturnType<typeof tone> | null = null) => ({
  kind: 'analogue' as const,
  send,
  expect,
});
const changesOf = (p: Plan, model: Model) => fit(p, model).changes.map(({ what, text }) => [what, text]);

describe('the Petrel stores one shift a band', () => {
  const usual = channel(1, 145_612_500, { name: 'Ullsmere', tx: 145_012_500, power: 50_000 });
  // on 70 cm it stores 7.6 MHz: what is shifted by 1.6 is kept as two frequencies
  const other = channel(2, 433_162_500, { name: 'Farrow', tx: 434_762_500, power: 50_000 });
  const p = plan([usual, other]);

  test('any other is kept as a split, which fit and face say, receiving and sending', () => {
    const { channels, changes, settings } = fit(p, petrelHF9);
    expect(channels.map(({ split }) => split ?? false)).toEqual([false, true]);
    expect(changes.map(({ what, text, because }) => [what, text, because])).toEqual([
      ['shift', '+1.6 MHz kept as a split', 'This radio stores one shift there: 7.600 MHz'],
    ]);
    expect(settings).toMatchObject({ shift2m: 600_000, shift70cm: 7_600_000 });
    expect(face(channels[0]!, petrelHF9, false, 'orrin').shift).toBe('dn 0.600');
    expect(face(channels[1]!, petrelHF9, false, 'orrin').shift).toBe('SPLIT');
    expect(face(channels[1]!, petrelHF9, true, 'orrin')).toMatchObject({
      large: '434.76250',
      shift: 'SPLIT',
      sending: true,
    });
  });
  test('which shift that is, the plan sets', () => {
    const set = { ...p, settings: { 'petrel-hf9': { shift70cm: 1_600_000 } } };
    expect(fit(set, petrelHF9).channels.map(({ split }) => split ?? false)).toEqual([false, false]);
  });
  test('where it stores none every shift is a split', () => {
    expect(
      changesOf(plan([channel(1, 14_200_000, { mode: 'USB', tx: 14_210_000, power: 5_000 })]), petrelHF9),
    ).toEqual([['shift', '+0.01 MHz kept as a split']]);
  });
  test('one tone serves both ways', () => {
    const access = (send: ReturnType<typeof tone> | null, expect: ReturnType<typeof tone> | null) =>
      fit(plan([channel(1, 145_500_000, { power: 5_000, access: analogue(send, expect) })]), petrelHF9);
    expect(access(tone(885), tone(885)).changes).toEqual([]);
    expect(access(tone(885), null).channels[0]).toMatchObject({ send: tone(885), expect: null });
    // two tones: the one that opens the repeater stays, and everybody is heard
    expect(access(tone(885), tone(948))).toMatchObject({
      channels: [{ send: tone(885), expect: null }],
      changes: [{ what: 'access', text: 'Sends 88.5 and hears everything' }],
    });
    expect(access(null, tone(948))).toMatchObject({
      channels: [{ send: tone(948), expect: tone(948) }],
      changes: [{ what: 'access', text: '94.8 is sent too' }],
    });
  });
  test('narrow FM is held as FM where nothing is sent, and left out where something would be', () => {
    const narrow = (tx: number | null) => plan([channel(1, 145_500_000, { mode: 'NFM', tx, power: 5_000 })]);
    expect(changesOf(narrow(null), petrelHF9)).toEqual([['mode', 'narrow FM becomes FM']]);
    expect(fit(narrow(145_500_000), petrelHF9).leftOut).toEqual([{ id: id(1), obstacles: ['mode'] }]);
  });
});

test('the Curlew’s memories know no power; of those that send it is said', () => {
  const p = plan([
    channel(1, 145_500_000, { power: 2_000 }),
    channel(2, 156_800_000, { tx: null, power: 2_000 }),
  ]);
  expect(changesOf(p, curlewX1)).toEqual([['power', '2 W becomes whatever the set stands at']]);
});

describe('the Plover', () => {
  const digital = plan([channel(1, 145_375_000, { mode: 'C4FM' }), channel(2, 145_500_000)]);
  test('sends nothing digital before its call sign is set: a stop, with the mend', () => {
    expect(contentToWrite(digital, ploverF5).heldBack).toEqual([
      { id: id(1), reasons: [expect.stringContaining('only when its own call sign is set')] },
    ]);
    const set = { ...digital, settings: { 'plover-f5': { ownCall: 'Q7ABC' } } };
    expect(contentToWrite(set, ploverF5).heldBack).toEqual([]);
    expect(
      contentToWrite({ ...set, settings: { 'plover-f5': { ownCall: ' ' } } }, ploverF5).heldBack,
    ).toHaveLength(1);
  });
  test('hears the airband and never sends there', () => {
    const p = plan([channel(1, 118_850_000, { mode: 'AM' })]);
    expect(fit(p, ploverF5)).toMatchObject({
      channels: [{ tx: null, mode: 'AM' }],
      changes: [{ what: 'tx', text: 'Held as listen only' }],
    });
  });
});

describe('the Gannet', () => {
  const onRight = (slot: number, rx: number, name: string) => ({
    ...channel(slot, rx, { name }),
    id: id(1000 + slot),
    list: 1,
  });
  const home = (list: number, slot: number, rx: number) => ({
    ...channel(slot, rx, { name: 'Home' }),
    id: id(2000 + 10 * list + slot),
    list,
  });
  const left = channel(1, 145_612_500, { name: 'Ullsmere Hill', tx: 145_012_500 });
  const p: Plan = {
    ...plan([
      left,
      onRight(1, 430_887_500, 'Ullsmere Hill'),
      home(2, 1, 145_375_000),
      home(3, 1, 433_500_000),
    ]),
    zones: Array.from({ length: 9 }, (_, n) => ({
      id: zoneId(n),
      name: `Day ${n + 1}`,
      members: n === 0 ? [id(1001), left.id] : [],
    })),
  };
  test('has a list, banks and home channels of each side', () => {
    const fitted = fit(p, gannetM8);
    // names are told apart on each side by itself
    expect(fitted.channels.map(({ list, slot, name }) => [list, slot, name])).toEqual([
      [0, 1, 'Ulls HL'],
      [1, 1, 'Ulls HL'],
      [2, 1, 'Home'],
    ]);
    // a home channel of 70 cm does not stand in the place of 2 m
    expect(fitted.leftOut).toEqual([{ id: id(2031), obstacles: ['home band'] }]);
    expect(fitted.zones.filter(({ number }) => number === 1)).toEqual([
      { list: 0, number: 1, name: 'Day 1', slots: [1] },
      { list: 1, number: 1, name: 'Day 1', slots: [1] },
    ]);
    expect(fitted.zones).toHaveLength(16);
    expect(fitted.besides.filter(({ text }) => text === 'Left out')).toEqual([
      { kind: 'zone', id: zoneId(8), text: 'Left out', because: 'This radio has 8 banks' },
    ]);
  });
  test('slots of its lists: 400 a side, a home channel a band', () => {
    expect([0, 1, 2, 3, 4].map((list) => slotsOf(gannetM8, list))).toEqual([
      { first: 1, count: 400 },
      { first: 1, count: 400 },
      { first: 1, count: 2 },
      { first: 1, count: 2 },
      undefined,
    ]);
  });
  test('scan edges lie within a band, six pairs a side', () => {
    const edge = (n: number, list: number, from: number, to: number) => ({
      id: `se_test000${n}` as ScanEdgeId,
      name: `Edges ${n}`,
      list,
      from,
      to,
    });
    const edges: Plan = {
      ...p,
      scanEdges: [
        edge(1, 1, 433_000_000, 434_000_000),
        edge(2, 0, 144_000_000, 434_000_000),
        edge(3, 0, 146_000_000, 144_000_000),
        edge(4, 2, 144_000_000, 146_000_000),
        edge(5, 0, 144_000_000, 146_000_000),
      ],
    };
    const fitted = fit(edges, gannetM8);
    expect(fitted.scanEdges).toEqual([
      { list: 0, number: 1, from: 144_000_000, to: 146_000_000 },
      { list: 1, number: 1, from: 433_000_000, to: 434_000_000 },
    ]);
    expect(fitted.besides.flatMap(({ kind, because }) => (kind === 'scanEdge' ? [because] : []))).toEqual([
      'Not within one band of this radio',
      'Its lower edge is not below its upper one',
      'This radio has no such side',
    ]);
  });
});

/** Plans with a second side, zones, skip sets and quick set-ups; two channels of three in a mode and with a tone that the model has. */
const anyShelfPlanFor = (model: Model) =>
  fc
    .tuple(
      anyPlan.filter(({ channels }) => channels.length > 3),
      fc.nat(3),
      fc.boolean(),
    )
    .map(([whole, every, only]): Plan => {
      const suited = { mode: 'FM' as const, access: analogue(tone(model.tones[0]!)) };
      const p = {
        ...whole,
        channels: whole.channels.map((one, at) => (at % 3 === 0 ? one : { ...one, ...suited })),
      };
      const channels = p.channels.map((one, at) => ({
        ...one,
        list: every > 0 && at % (every + 1) === 0 ? 1 : 0,
      }));
      const ids = channels.map((one) => one.id);
      return {
        ...p,
        channels: channels.sort((a, b) => a.list - b.list || a.slot - b.slot),
        skipSets: [
          {
            id: 'sk_test0001' as SkipSetId,
            name: 'No weather',
            way: only ? 'only' : 'all but',
            members: ids.slice(0, 3),
          },
        ],
        setUps: [
          {
            id: 'qs_test0001' as SetUpId,
            name: 'On the road',
            sides: [0, 1].map((side) => ({
              begins: side === every % 2 ? ('memory' as const) : ('home' as const),
              zone: p.zones[0]?.id ?? null,
              start: ids[side] ?? null,
              skipSet: 'sk_test0001' as SkipSetId,
              scanning: only,
              shows: 'name' as const,
              autoDial: '',
            })),
          },
        ],
      };
    });

describe.each(MODELS.map((model) => [model.name, model] as const))('%s', (_, model) => {
  const contentOf = (p: Plan) => {
    const { heldBack: _, ...written } = contentToWrite(p, model);
    return { ...written, channels: written.channels.map(({ id: _id, ...held }) => held) };
  };

  test('what is written is what is read; made a plan again, it is fitted without a change', () => {
    const reached = fc.tally();
    fc.assert(
      fc.property(anyShelfPlanFor(model), (p) => {
        const content = contentOf(p);
        const image = encodeImage(content, blankImage(formatOf(model)), model);
        const decoded = decodeImage(image, model);
        if (!decoded.ok) throw new Error(decoded.reason);
        expect(decoded.value).toMatchObject(content);
        let n = 0;
        const counted = () => Uint8Array.from(String(++n).padStart(8, '0'), Number);
        const lists = planOfContent(decoded.value, model, idsOf(counted));
        const again = fit({ ...p, ...lists }, model);
        expect({
          // that a power is unknown and a shift kept as a split is said again: it stays so
          changes: again.changes.filter(({ what }) => what !== 'power' && what !== 'shift'),
          leftOut: again.leftOut,
        }).toEqual({
          changes: [],
          leftOut: [],
        });
        expect(again.channels.map(({ id: _id, ...held }) => held)).toEqual(content.channels);
        expect(again.zones.map(({ slots }) => slots)).toEqual(content.zones.map(({ slots }) => slots));
        expect(again.skipSets.map(({ slots }) => slots)).toEqual(content.skipSets.map(({ slots }) => slots));
        expect(again.setUps.map(({ sides }) => sides)).toEqual(content.setUps.map(({ sides }) => sides));
        reached.count('written', content.channels.length > 0);
        reached.count('both sides', new Set(content.channels.map(({ list }) => list)).size > 1);
      }),
      { numRuns: 60 },
    );
    reached.expectShare('written', 0.6);
    if (sidesOf(model).length > 1) reached.expectShare('both sides', 0.3);
  });
});

test('the Osprey takes no level for a channel, which is said; the Kestrel takes it', () => {
  const p = plan([digital(1, { talkgroup: groupId(1), politeness: { to: 'all', level: -105 } })]);
  const own = { ...p, talkgroups: [{ id: groupId(1), name: 'Isles', number: 100, call: 'group' as const }] };
  expect(changesOf(own, kestrelC1)).toEqual([]);
  expect(fit(own, kestrelC1).channels[0]!.digital).toMatchObject({ politeness: 'all', level: -105 });
  expect(changesOf(own, ospreyD7).filter(([what]) => what === 'digital')).toEqual([
    ['digital', 'Busy from a level of its own on, not from -105 dBm'],
  ]);
  expect(fit(own, ospreyD7).channels[0]!.digital).toMatchObject({
    politeness: 'all',
    level: null,
    talkgroup: 1,
  });
});
