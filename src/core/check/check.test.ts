import * as fc from '../property.test.kit';
import { anyPlan, channel, everything, id, plan, run } from '../samples.test.kit';
import { digital, groupId, receiveId } from '../digital.test.kit';
import { kestrelC1 } from '../models/kestrel-c1';
import { ON_DIGITAL } from './digital-cases.test.kit';
import { ploverF5 } from '../models/plover-f5';
import { ternP2 } from '../models/tern-p2';
import { GRADES, OPEN, REGIONS } from '../radio';
import { fit } from '../fit';
import { anyEditOn } from '../plan/edit.test.kit';
import { applyEdit, type Channel, type ChannelFields, type Plan } from '../plan';
import { check, contentToWrite, mendsOf, mendTogether, RULES, SEVERITIES, WIRED, type Finding } from '.';

const found = (p: Plan, rule: string) => check(p, ternP2).filter((finding) => finding.rule === rule);
const one = (rx: number, fields: Partial<ChannelFields> = {}, slot = 1) =>
  plan([channel(slot, rx, { name: 'Norrast', ...fields })]);
const code = (figures: number) => ({
  kind: 'analogue' as const,
  send: { kind: 'code' as const, code: figures, inverted: false },
  expect: null,
});
const tone = (tenths: number) => ({
  kind: 'analogue' as const,
  send: { kind: 'tone' as const, tone: tenths },
  expect: null,
});

/** Each case: a rule, a plan that it finds, severity, and a fact of what its mend makes of the channel (undefined: no mend). */
const CASES: [string, Plan, string, Partial<Channel> | 'gone' | undefined][] = [
  ['out-of-range', one(51_310_000), 'stop', undefined],
  ['out-of-range', one(156_400_000), 'caution', { tx: null }],
  ['off-step', one(145_503_000), 'stop', { rx: 145_505_000, tx: 145_505_000 }],
  ['off-step', one(145_500_000, { tx: 145_001_000 }), 'stop', { rx: 145_500_000, tx: 145_000_000 }],
  ['tone-not-held', one(145_500_000, { access: tone(884) }), 'stop', { access: tone(885) }],
  ['outside-licence', one(446_500_000), 'caution', { tx: null }],
  ['outside-licence', plan([channel(1, 446_500_000)], { strict: true }), 'stop', { tx: null }],
  ['odd-shift', one(145_700_000, { tx: 145_200_000 }), 'caution', { tx: 145_100_000 }],
  ['odd-shift', one(145_100_000, { tx: 145_700_000 }), 'caution', { rx: 145_700_000, tx: 145_100_000 }],
  ['odd-shift', one(145_500_000, { tx: 144_900_000 }), 'hint', undefined],
  [
    'over-repeater',
    plan([channel(1, 145_700_000, { tx: 145_100_000 }), channel(2, 145_700_000)]),
    'caution',
    { tx: null },
  ],
  [
    'name-collision',
    plan([channel(1, 145_500_000, { name: 'Stennick' }), channel(2, 145_525_000, { name: 'Stennick' })]),
    'hint',
    undefined,
  ],
  [
    'name-collision',
    plan([1, 2].map((n) => channel(n, 145_500_000 + n * 12_500, { fitted: { 'tern-p2': 'ALIKE' } }))),
    'caution',
    undefined,
  ],
  ['duplicate-channel', plan([channel(1, 145_500_000), channel(2, 145_500_000)]), 'caution', 'gone'],
  ['slot-out-of-range', one(145_500_000, {}, 150), 'stop', { slot: 0 }],
  // FM is no mend for what is not FM: nobody there would understand it
  ['mode-not-held', one(145_500_000, { mode: 'AM' }), 'stop', 'gone'],
  ['mode-not-held', one(144_300_000, { mode: 'USB' }), 'stop', 'gone'],
  ['mode-not-held', one(439_000_000, { mode: 'DMR' }), 'stop', 'gone'],
  // a code that the radio calls otherwise, and one that is nothing it has: 340 is 023 on air, 777 is no code of the list
  ['tone-not-held', one(145_500_000, { access: code(340) }), 'stop', { access: code(23) }],
  ['tone-not-held', one(145_500_000, { access: code(777) }), 'stop', 'gone'],
  [
    'tone-not-held',
    one(145_525_000, { access: { ...tone(885), expect: { kind: 'code', code: 777, inverted: false } } }),
    'stop',
    { access: tone(885) },
  ],
  ['satellite-downlink', one(145_900_000), 'caution', { tx: null }],
  ['satellite-downlink', one(436_500_000), 'caution', { tx: null }],
  [
    'licence-free-channel',
    one(446_010_000, { mode: 'NFM', power: 500 }),
    'caution',
    { rx: 446_006_250, tx: 446_006_250 },
  ],
  ['wide-in-narrow', one(432_200_000), 'hint', { tx: null }],
  ['tone-on-calling', one(145_500_000, { access: tone(885) }), 'caution', { access: OPEN }],
  [
    'tone-on-calling',
    one(433_500_000, { access: { kind: 'analogue', send: null, expect: { kind: 'tone', tone: 885 } } }),
    'caution',
    { access: OPEN },
  ],
  ['power-above-licence', one(446_006_250, { mode: 'NFM', power: 1000 }), 'caution', { tx: null }],
  ['always-on-in-scan', one(162_400_000, { alwaysOn: true, tx: null }), 'hint', { scan: false }],
  ['empty-name', one(145_500_000, { name: '' }), 'hint', undefined],
  ['empty-name', one(145_500_000, { name: '§§' }), 'hint', undefined],
  [
    'access-without-mode',
    one(145_500_000, { access: { kind: 'dmr', colourCode: 1, timeSlot: 1 } }),
    'caution',
    { access: { kind: 'analogue', send: null, expect: null } },
  ],
];

test.each<[Channel['mode'], Channel['access'], string | null]>([
  ['FM', { kind: 'dmr', colourCode: 3, timeSlot: 2 }, 'FM has no colour code 3, time slot 2.'],
  ['FM', { kind: 'nac', nac: 0x293 }, 'FM has no network access code 293.'],
  ['P25', { kind: 'dmr', colourCode: 3, timeSlot: 2 }, 'P25 has no colour code 3, time slot 2.'],
  ['DMR', { kind: 'nac', nac: 0x293 }, 'DMR has no network access code 293.'],
  ['DMR', tone(885), 'DMR has no tones or codes.'],
  ['P25', { ...tone(885), send: null, expect: { kind: 'tone', tone: 885 } }, 'P25 has no tones or codes.'],
  ['DMR', OPEN, null],
  ['FM', tone(885), null],
  ['DMR', { kind: 'dmr', colourCode: 3, timeSlot: 2 }, null],
  ['P25', { kind: 'nac', nac: 0x293 }, null],
])('%s with %j: %s', (mode, access, text) => {
  const texts = found(one(145_500_000, { mode, access }), 'access-without-mode').map(
    (finding) => finding.text,
  );
  expect(texts).toEqual(text === null ? [] : [`Without effect: ${text}`]);
});
test.each(CASES)('%s (case %#)', (rule, p, severity, mended) => {
  const findings = found(p, rule);
  expect(findings.map((finding) => finding.severity)).toEqual([severity]);
  const { id: about, text } = findings[0]!;
  const [mend] = mendsOf(findings[0]!, p, ternP2);
  expect(text).toMatch(/^[^a-z].*\.$/);
  if (mended === undefined) return expect(mend).toBeUndefined();
  const after = applyEdit(p, mend!.edit);
  if (!after.ok) throw new Error(after.reason);
  expect(found(after.value, rule)).toEqual([]);
  const changed = after.value.channels.find((c) => c.id === about);
  if (mended === 'gone') expect(changed).toBeUndefined();
  else expect(changed).toMatchObject(mended);
});

const onAll = (p: Plan, rule: string) => check(p, everything).filter((finding) => finding.rule === rule);

const ON_ALL: typeof CASES = [
  ['distress-channel', one(156_800_000), 'stop', { tx: null }],
  ['distress-channel', one(121_500_000, { mode: 'AM' }), 'stop', { tx: null }],
  ['distress-channel', one(2_182_000, { mode: 'USB' }), 'stop', { tx: null }],
  ['distress-channel', one(406_050_000, { mode: 'NFM' }), 'stop', { tx: null }],
  ['fm-in-airband', one(118_100_000, { tx: null }), 'caution', { mode: 'AM' }],
  ['not-understood', one(145_500_000, { unclear: { access: 'loud' } }), 'stop', { rx: 145_500_000 }],
  [
    'digital-without-access',
    one(439_000_000, { mode: 'P25' }),
    'caution',
    { access: { kind: 'nac', nac: 0x293 } },
  ],
  ['wide-in-narrow', plan([channel(1, 14_200_000)], { region: 'itu1' }), 'hint', { tx: null }],
];

test.each(ON_ALL)('%s on a radio that can do everything (case %#)', (rule, p, severity, mended) => {
  const [finding, ...others] = onAll(p, rule);
  expect(others).toEqual([]);
  expect(finding!.severity).toBe(severity);
  const after = applyEdit(p, mendsOf(finding!, p, everything)[0]!.edit);
  if (!after.ok) throw new Error(after.reason);
  expect(onAll(after.value, rule)).toEqual([]);
  expect(after.value.channels[0]).toMatchObject(mended as Partial<Channel>);
});

test('a mend takes its finding away, and ends in no stop and nothing worse that was not there before', () => {
  const reached = fc.tally();
  const rank = (severity: string) => SEVERITIES.indexOf(severity as 'stop');
  // What two channels have in common is about the list, not about what goes on air.
  const ofTheList = ['duplicate-channel', 'name-collision'];
  const owners = fc.record({
    region: fc.constantFrom(...REGIONS),
    grade: fc.constantFrom(...GRADES),
    strict: fc.boolean(),
    marine: fc.boolean(),
  });
  fc.assert(
    fc.property(anyPlan, owners, fc.constantFrom(ternP2, everything), (made, owner, model) => {
      const p = { ...made, owner: { ...made.owner, ...owner } };
      const ofChannels = (of: Plan) =>
        check(of, model).flatMap((finding) =>
          finding.kind === 'channel' && !WIRED.has(finding.rule) ? finding : [],
        );
      const before = ofChannels(p);
      const keyOf = ({ rule, id: of, field }: (typeof before)[number]) => `${rule} ${of} ${field}`;
      const known = new Map(before.map((finding) => [keyOf(finding), rank(finding.severity)]));
      for (const finding of before)
        for (const mend of mendsOf(finding, p, model)) {
          reached.count(finding.rule, true);
          const after = applyEdit(p, mend.edit);
          if (!after.ok) throw new Error(after.reason);
          for (const next of ofChannels(after.value)) {
            if (next.id !== finding.id || ofTheList.includes(next.rule)) continue;
            expect([mend.label, next.rule]).not.toEqual([mend.label, finding.rule]);
            const was = known.get(keyOf(next)) ?? 9;
            const worse = rank(next.severity) < rank(finding.severity) || next.severity === 'stop';
            if (worse && was > rank(next.severity))
              throw new Error(`${finding.text} ${mend.label}: ${next.text}`);
          }
        }
    }),
    { numRuns: 150 },
  );
  for (const rule of [
    'out-of-range',
    'off-step',
    'tone-not-held',
    'mode-not-held',
    'outside-licence',
    'odd-shift',
    'satellite-downlink',
  ])
    reached.expectTimes(rule, 1);
});

test('digital that sends wants the radio’s own call sign: one edit sets it for all such channels', () => {
  const p = plan([
    channel(1, 145_375_000, { mode: 'C4FM' }),
    channel(2, 145_400_000, { mode: 'C4FM' }),
    channel(3, 145_425_000, { mode: 'C4FM', tx: null }),
    channel(4, 145_500_000),
  ]);
  const rule = (of: Plan) =>
    check(of, ploverF5).filter((finding) => finding.rule === 'digital-without-own-call');
  expect(rule(p).map((finding) => [finding.id, finding.severity])).toEqual([
    [id(1), 'stop'],
    [id(2), 'stop'],
  ]);
  const together = mendTogether(rule(p), p, ploverF5)!;
  expect(together).toMatchObject({ label: 'Set the call sign Q7ABC', count: 2 });
  const after = applyEdit(p, together.edit);
  expect(after.ok && rule(after.value)).toEqual([]);
  expect(after.ok && after.value.settings).toEqual({ 'plover-f5': { ownCall: 'Q7ABC' } });
  // whoever has none is told, and has to say one
  expect(mendsOf(rule(p)[0]!, { ...p, owner: { ...p.owner, callSign: '' } }, ploverF5)).toEqual([]);
  expect(check(p, ternP2).some((finding) => finding.rule === 'digital-without-own-call')).toBe(false);
});

test.each(ON_DIGITAL)('%s is found on a digital radio and mended', (rule, fields, severity, mended) => {
  const p = {
    ...plan([digital(1, fields)]),
    modelId: 'kestrel-c1',
    talkgroups: [{ id: groupId(1), name: 'Isles', number: 100, call: 'group' as const }],
  };
  const found = check(p, kestrelC1).filter((finding) => finding.rule === rule);
  expect(found.map((finding) => finding.severity)).toEqual([severity]);
  const mends = mendsOf(found[0]!, p, kestrelC1);
  expect(mends.length > 0).toBe(mended !== undefined);
  if (mended) expect(run(p, mends[0]!.edit).channels[0]).toMatchObject(mended);
  // what is not digital has no use for any of it
  expect(check(p, ternP2).some((finding) => finding.rule === rule)).toBe(false);
});

test('nothing of that is said of a digital channel as it should be', () => {
  const p = {
    ...plan([
      digital(1, {
        talkgroup: groupId(1),
        receiveList: receiveId(1),
        politeness: { to: 'all', level: -122 },
      }),
    ]),
    talkgroups: [{ id: groupId(1), name: 'Isles', number: 100, call: 'group' as const }],
    receiveLists: [{ id: receiveId(1), name: 'Isles', members: [groupId(1)] }],
    settings: { 'kestrel-c1': { radioId: 1_000_412 } },
  };
  const rules = ON_DIGITAL.map(([rule]) => rule);
  expect(check(p, kestrelC1).filter(({ rule }) => rules.includes(rule))).toEqual([]);
});

test('every rule has a case', () => {
  const cased = [...CASES, ...ON_ALL, ...ON_DIGITAL].map(([rule]) => rule);
  // The others have files of their own.
  const others = ['digital-without-own-call', 'other-than-directory', ...WIRED];
  expect(new Set([...cased, ...others])).toEqual(new Set(RULES.map((rule) => rule.id)));
});

test('a sound plan has no findings', () => {
  const sound = plan([
    channel(0, 145_500_000, { name: 'Calling' }),
    channel(1, 145_612_500, { name: 'Ullsmere Hill', tx: 145_012_500, access: tone(885) }),
    channel(2, 430_887_500, { name: 'Ketterby Quay', tx: 438_487_500, txFixed: true }),
    channel(3, 162_400_000, { name: 'Weather', tx: null, alwaysOn: true, scan: false }),
  ]);
  expect(check(sound, ternP2)).toEqual([]);
});

test('repeaters far apart may share an output', () => {
  const source = (lat: number) => ({ directory: 'd', entry: 'e', service: 'amateur', lat, lon: -30 });
  const two = (lat: number) =>
    plan([
      channel(1, 145_700_000, { tx: 145_100_000, source: source(52) }),
      channel(2, 145_700_000, { source: source(lat) }),
    ]);
  expect(found(two(53), 'over-repeater')).toHaveLength(1); // 111 km
  expect(found(two(54), 'over-repeater')).toHaveLength(0); // 222 km
});

describe('what is written', () => {
  test('channels with a stop are held back with the reason, all others are written', () => {
    const p = plan(
      [channel(1, 145_500_000), channel(2, 145_525_000, { access: tone(884) }), channel(3, 446_500_000)],
      { strict: true },
    );
    const written = contentToWrite(p, ternP2);
    expect(written.channels.map((c) => c.slot)).toEqual([1]);
    expect(written.heldBack).toEqual([
      { id: id(2), reasons: [expect.stringContaining('88.4 Hz')] },
      { id: id(3), reasons: [expect.stringContaining('licence')] },
    ]);
  });

  test('whatever is left out of the fit has a stop that says why; mends are edits that hold', () => {
    const reached = fc.tally();
    const withTone = fc.tuple(anyPlan, fc.nat(2)).map(([p, luck]): Plan => {
      const [first, ...others] = p.channels;
      if (!first || luck > 0) return p;
      return { ...p, channels: [{ ...first, mode: 'FM', access: tone(884) }, ...others] };
    });
    fc.assert(
      fc.property(withTone, (p) => {
        const findings = check(p, ternP2);
        const stopped = new Set(findings.filter((f) => f.severity === 'stop').map((f) => f.id));
        const written = contentToWrite(p, ternP2);
        expect(new Set(written.heldBack.map((held) => held.id))).toEqual(stopped);
        expect(written.channels.length).toBe(p.channels.length - stopped.size);
        expect(findings.map((f) => SEVERITIES.indexOf(f.severity))).toEqual(
          findings.map((f) => SEVERITIES.indexOf(f.severity)).sort(),
        );
        for (const finding of findings)
          for (const mend of mendsOf(finding, p, ternP2)) expect(applyEdit(p, mend.edit).ok).toBe(true);
        reached.count('written', written.channels.length > 0);
        reached.count('stopped', stopped.size > 0);
      }),
      { numRuns: 200 },
    );
    reached.expectShare('written', 0.6);
    reached.expectShare('stopped', 0.6);
  });
});

test('a slot beyond the radio has a mend as long as a slot is free', () => {
  const inside = Array.from({ length: 150 }, (_, slot) => channel(slot, 145_500_000));
  const mends = (p: Plan) =>
    found(p, 'slot-out-of-range').map((finding) => mendsOf(finding, p, ternP2)[0]?.label);
  expect(mends(plan([...inside, channel(150, 145_500_000)]))).toEqual([undefined]);
  expect(
    mends(plan([...inside.slice(0, 149), channel(150, 145_500_000), channel(151, 145_500_000)])),
  ).toEqual(['Move to slot 149', 'Move to slot 149']);
});

test('two channels of one name are the same only where all that is on air is the same', () => {
  const twin = (fields: Partial<ChannelFields>) =>
    found(
      plan([channel(1, 145_612_500, { name: 'Hill' }), channel(2, 145_612_500, { name: 'Hill', ...fields })]),
      'duplicate-channel',
    );
  expect(twin({ power: 1000, note: 'x' })).toHaveLength(1);
  expect(twin({ tx: null })).toEqual([]);
  expect(twin({ tx: 145_012_500 })).toEqual([]);
  expect(twin({ mode: 'NFM' })).toEqual([]);
  expect(twin({ access: tone(885) })).toEqual([]);
  // of three, two are too many
  const three = plan([1, 2, 3].map((slot) => channel(slot, 145_500_000)));
  expect(found(three, 'duplicate-channel').map((finding) => finding.id)).toEqual([id(2), id(3)]);
});

test('after any edit Check says what it would say of the plan seen for the first time, and leaves the rest the very same', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      anyPlan
        .filter(({ channels }) => channels.length > 8)
        .chain((p) => fc.tuple(fc.constant(p), anyEditOn(p))),
      fc.constantFrom(ternP2, everything),
      ([before, edit], model) => {
        const first = check(before, model);
        const result = applyEdit(before, edit);
        if (!result.ok) return;
        const after = check(result.value, model);
        // A copy has nothing in common with what was seen before.
        const fresh = structuredClone(result.value);
        expect(after).toEqual(check(fresh, model));
        expect(fit(result.value, model)).toEqual(fit(fresh, model));
        for (const [index, finding] of check(fresh, model).entries())
          expect(mendsOf(after[index]!, result.value, model)).toEqual(mendsOf(finding, fresh, model));
        if (edit.name !== 'change' || edit.kind === 'zone') return;
        const changed = new Set<string>(edit.changes.map((change) => change.id));
        const alone = ({ rule, id: of }: Finding) =>
          !changed.has(of) && 'findOne' in RULES.find((one) => one.id === rule)!;
        reached.count('left alone', first.some(alone));
        expect(after.filter(alone).every((finding) => first.includes(finding))).toBe(true);
      },
    ),
    { numRuns: 250 },
  );
  reached.expectShare('left alone', 0.5);
});
