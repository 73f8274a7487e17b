import * as fc from '../property.test.kit';
import { anyAccess } from '../samples.test.kit';
import {
  CODES,
  describeAccess,
  formatAccess,
  codeOnAir,
  codeWord,
  sameCodeOnAir,
  nearestTone,
  parseAccess,
  parseMode,
  parsePower,
  formatPower,
  TONES,
} from '.';

describe('access notation', () => {
  test('entry understands whatever display shows', () => {
    fc.assert(
      fc.property(anyAccess, (access) =>
        expect(parseAccess(formatAccess(access))).toEqual({ ok: true, value: access }),
      ),
      {
        numRuns: 1000,
      },
    );
  });

  test('access in words', () => {
    expect(describeAccess({ kind: 'dmr', colourCode: 3, timeSlot: 2 })).toBe('colour code 3, time slot 2');
    expect(describeAccess({ kind: 'analogue', send: { kind: 'tone', tone: 885 }, expect: null })).toBe(
      'sends 88.5 Hz',
    );
  });
});

describe('lists', () => {
  test('50 tones and 104 codes, rising, codes octal', () => {
    expect(TONES).toHaveLength(50);
    expect(CODES).toHaveLength(104);
    expect([...TONES].sort((a, b) => a - b)).toEqual(TONES);
    expect(CODES.every((figures) => /^[0-7]{1,3}$/.test(String(figures)))).toBe(true);
  });
  test('the nearest of a list', () => {
    expect(nearestTone(884)).toBe(885);
    expect(nearestTone(900)).toBe(885); // 1.5 Hz below, 91.5 is as far above: the lower
  });
});

test('power and mode', () => {
  expect(parsePower('4')).toEqual({ ok: true, value: 4000 });
  expect(parsePower('0,5 W')).toEqual({ ok: true, value: 500 });
  expect(parsePower('500mW')).toEqual({ ok: true, value: 500 });
  expect(parsePower('much')).toMatchObject({ ok: false });
  expect(parsePower('0')).toMatchObject({ ok: false });
  expect(formatPower(500)).toBe('0.5 W');
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 2_000_000 }), (mw) =>
      expect(parsePower(formatPower(mw))).toEqual({ ok: true, value: mw }),
    ),
  );
  expect(parseMode('nfm')).toBe('NFM');
  expect(parseMode('narrow fm')).toBe('NFM');
  expect(parseMode('wideband')).toBeUndefined();
});

describe('codes on air', () => {
  test('the word of 023 as it is published, and that each word is one of the Golay code', () => {
    expect(codeWord(23)).toBe(0x763813);
    // Two different words of the Golay code (23, 12) differ in seven bits at least.
    const apart = (a: number, b: number) => (a ^ b).toString(2).replaceAll('0', '').length;
    const words = CODES.map(codeWord);
    for (const [i, word] of words.entries())
      for (const other of words.slice(0, i)) expect(apart(word, other)).toBeGreaterThanOrEqual(7);
  });
  test('no two codes of the list are one on air', () =>
    expect(new Set(CODES.map((one) => codeOnAir(one, false))).size).toBe(104));
  test('inverted, each is the normal code that the published table names', () => {
    const pairs =
      '023-047 025-244 026-464 031-627 032-051 036-172 043-445 053-452 054-413 065-271 071-306 072-245 073-506 074-174 ' +
      '114-712 115-152 116-754 122-225 125-365 131-364 132-546 134-223 143-412 145-274 155-731 156-265 162-503 165-251 ' +
      '205-263 212-356 226-411 243-351 246-523 252-462 255-446 261-732 266-454 311-664 315-423 325-526 331-465 332-455 ' +
      '343-532 346-612 371-734 431-723 432-516 466-662 565-703 606-631 624-632 654-743';
    for (const [a, b] of pairs.split(' ').map((pair) => pair.split('-').map(Number)) as [number, number][]) {
      expect([a, codeOnAir(a, true)]).toEqual([a, codeOnAir(b, false)]);
      expect(sameCodeOnAir(b, true)).toEqual({ code: a, inverted: false });
    }
    expect(pairs.split(' ')).toHaveLength(52);
  });
  test('numbers off the list are other names of those on it, or of none', () => {
    // 340 and 766 are 023 turned, as their words show bit by bit
    expect(sameCodeOnAir(340, false)).toEqual({ code: 23, inverted: false });
    expect(sameCodeOnAir(766, false)).toEqual({ code: 23, inverted: false });
    expect(sameCodeOnAir(23, true, CODES, false)).toEqual({ code: 47, inverted: false });
    expect(sameCodeOnAir(23, true, [23], true)).toEqual({ code: 23, inverted: true });
    expect(sameCodeOnAir(23, true, [23], false)).toBeUndefined();
  });
});
