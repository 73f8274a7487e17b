import fc from 'fast-check';
import { anyAccess } from '../samples.test.kit';
import {
  CODES,
  describeAccess,
  formatAccess,
  nearestCode,
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
    expect(nearestCode(24)).toBe(23); // 024 is 20, 023 is 19, 025 is 21: the lower of two as near
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
