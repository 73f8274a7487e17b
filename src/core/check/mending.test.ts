import { channel, id, plan } from '../samples.test.kit';
import { ternP2 } from '../models/tern-p2';
import { applyEdit } from '../plan';
import { check, countFindings, groupFindings, mendEverything, mendTogether, RULES, type Finding } from '.';

const LOOKED_FOR = Object.fromEntries(RULES.map(({ id: of, looksFor }) => [of, looksFor]));
const tone = (tenths: number) => ({
  kind: 'analogue' as const,
  send: { kind: 'tone' as const, tone: tenths },
  expect: null,
});

describe('mending everything at once', () => {
  test('the best way out of each, the gravest first, as one edit; what takes a channel away is left to the person', () => {
    const weather = [162_400_000, 162_425_000].map((rx, n) => channel(n + 1, rx));
    const p = plan([
      ...weather,
      channel(5, 145_500_000, { access: tone(884) }),
      // twice the same channel: one of them would have to go
      channel(6, 145_525_000, { name: 'Twice' }),
      channel(7, 145_525_000, { name: 'Twice' }),
    ]);
    const findings = check(p, ternP2);
    const all = mendEverything(findings, p, ternP2)!;
    expect(all.parts).toEqual(
      expect.arrayContaining([
        { label: 'Make it listen only', count: 2 },
        { label: 'Use 88.5', count: 1 },
      ]),
    );
    const parts = all.parts.reduce((sum, { count }) => sum + count, 0);
    expect(parts + all.left).toBe(findings.length);
    expect(all.left).toBeGreaterThan(0);
    const mended = applyEdit(p, all.edit);
    if (!mended.ok) throw new Error(mended.reason);
    expect(mended.value.channels).toHaveLength(5);
    expect(check(mended.value, ternP2).length).toBeLessThanOrEqual(all.left);
    expect(mended.value.channels.slice(0, 3).map(({ tx }) => tx)).toEqual([null, null, 145_500_000]);
  });
  test('where nothing can be mended it offers nothing', () => {
    const fine = plan([channel(1, 145_500_000, { name: 'Calling' })]);
    expect(mendEverything(check(fine, ternP2), fine, ternP2)).toBeUndefined();
  });
});

describe('mending together', () => {
  const of = (findings: readonly Finding[], rule: string) =>
    groupFindings(findings, LOOKED_FOR).find((group) => group.findings[0]!.rule === rule)!.findings;
  const weather = [162_400_000, 162_425_000, 162_450_000].map((rx, n) => channel(n + 1, rx));
  test('what is mended alike is mended by one edit', () => {
    const p = plan([...weather, channel(9, 145_500_000, { access: tone(884) })]);
    const findings = check(p, ternP2);
    const all = mendTogether(of(findings, 'out-of-range'), p, ternP2);
    expect(all).toMatchObject({ count: 3, label: 'Make it listen only' });
    const mended = applyEdit(p, all!.edit);
    if (!mended.ok) throw new Error(mended.reason);
    expect(mended.value.channels.map((c) => c.tx)).toEqual([null, null, null, 145_500_000]);
    expect(check(mended.value, ternP2).map(({ rule }) => rule)).not.toContain('out-of-range');
  });
  test('what another rule would mend alike in words is left as it is', () => {
    // listen only is the mend of two rules here: out of the radio's range, and outside the licence
    const p = plan([...weather, channel(8, 446_500_000), channel(9, 446_600_000)]);
    const findings = check(p, ternP2);
    const changed = (rule: string) => {
      const together = mendTogether(of(findings, rule), p, ternP2);
      expect(together?.label).toBe('Make it listen only');
      return together?.edit.name === 'change' ? together.edit.changes.map((change) => change.id) : [];
    };
    expect(changed('out-of-range')).toEqual([id(1), id(2), id(3)]);
    expect(changed('outside-licence')).toEqual([id(8), id(9)]);
  });
  test('of one alone, or where each would be mended otherwise, there is nothing to join', () => {
    const p = plan([
      channel(1, 145_500_000, { access: tone(884) }),
      channel(2, 145_525_000, { access: tone(1034) }),
    ]);
    for (const group of groupFindings(check(p, ternP2), LOOKED_FOR))
      expect(mendTogether(group.findings, p, ternP2)).toBeUndefined();
  });
});

test('findings are counted by severity, in words', () => {
  const of = (...severities: ('stop' | 'caution' | 'hint')[]) =>
    countFindings(severities.map((severity) => ({ severity }))).map(({ text }) => text);
  expect(of('hint', 'caution', 'caution', 'stop')).toEqual(['1 stop', '2 cautions', '1 hint']);
  expect(of()).toEqual([]);
});

test('findings are grouped by what is said with what weight, in their order; one sentence stands for all where it is the same', () => {
  const p = plan([
    channel(1, 162_400_000, { alwaysOn: true }),
    channel(2, 145_500_000, { alwaysOn: true }),
    channel(3, 162_425_000),
  ]);
  const groups = groupFindings(check(p, ternP2), LOOKED_FOR);
  expect(
    groups.map(({ severity, text, findings }) => [severity, text, findings.map((one) => one.id)]),
  ).toEqual([
    ['caution', 'Frequencies that the radio cannot tune.', [id(1), id(3)]],
    ['hint', 'The scan stops here and stays: this station never falls silent.', [id(1), id(2)]],
  ]);
});
