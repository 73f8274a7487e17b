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

const tone = (tenths: number) => ({ kind: 'tone', tone: tenths });
const code = (figures: number, inverted = false) => ({ kind: 'code', code: figures, inverted });

describe('access notation', () => {
  test.each([
    ['', { kind: 'analogue', send: null, expect: null }],
    ['open', { kind: 'analogue', send: null, expect: null }],
    ['88.5', { kind: 'analogue', send: tone(885), expect: null }],
    ['88,5 Hz', { kind: 'analogue', send: tone(885), expect: null }],
    ['100', { kind: 'analogue', send: tone(1000), expect: null }],
    ['88.5/88.5', { kind: 'analogue', send: tone(885), expect: tone(885) }],
    ['94.8 / 103.5', { kind: 'analogue', send: tone(948), expect: tone(1035) }],
    ['/88.5', { kind: 'analogue', send: null, expect: tone(885) }],
    ['d023n', { kind: 'analogue', send: code(23), expect: null }],
    ['D023I', { kind: 'analogue', send: code(23, true), expect: null }],
    ['D023N/D047I', { kind: 'analogue', send: code(23), expect: code(47, true) }],
    ['88.5/D754N', { kind: 'analogue', send: tone(885), expect: code(754) }],
    ['CC3 TS2', { kind: 'dmr', colourCode: 3, timeSlot: 2 }],
    ['cc0ts1', { kind: 'dmr', colourCode: 0, timeSlot: 1 }],
    ['NAC 293', { kind: 'nac', nac: 0x293 }],
  ])('%s is understood', (text, access) => expect(parseAccess(text)).toEqual({ ok: true, value: access }));

  test.each([
    ['D089N', /figure over 7/],
    ['D023', /polarity/],
    ['D000N', /does not exist/],
    ['CC16 TS1', /0 to 15/],
    ['CC3', /time slot/],
    ['CC3 TS3', /1 and 2/],
    ['NAC 1000', /over FFF/],
    ['12', /between 60 and 260/],
    ['88.5/88.5/88.5', /more than one slash/],
    ['tone', /not a tone or code/],
  ])('%s is refused with its reason', (text, reason) =>
    expect(parseAccess(text)).toMatchObject({ ok: false, reason: expect.stringMatching(reason) }),
  );

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
