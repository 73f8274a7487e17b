import * as fc from '../property.test.kit';
import { anyFrequency } from '../samples.test.kit';
import {
  carryTransmit,
  formatShift,
  formatTransmit,
  isFrequency,
  parseTransmit,
  usualShift,
  type Region,
} from '.';

const at = (rx: number, region: Region = 'orrin') => ({ rx, region });

describe('transmit entry', () => {
  test.each([
    ['', 145_612_500, 145_612_500, false],
    ['=', 145_612_500, 145_612_500, false],
    ['-', 145_612_500, 145_012_500, false],
    ['+', 430_887_500, 438_487_500, false],
    ['+7.6', 430_887_500, 438_487_500, false],
    ['-600k', 145_612_500, 145_012_500, false],
    ['\u22120.6', 145_612_500, 145_012_500, false],
    ['438.4875', 430_887_500, 438_487_500, true],
    ['145.6125', 145_612_500, 145_612_500, false],
    ['x', 162_400_000, null, false],
    // However long the dash is drawn; and one behind a size is the sign of that, whatever is usual here (+1.6).
    ['--', 145_612_500, 145_012_500, false],
    ['0.6-', 433_100_000, 432_500_000, false],
    ['600k-', 433_100_000, 432_500_000, false],
  ])('%s at %d Hz', (text, rx, tx, txFixed) =>
    expect(parseTransmit(text, at(rx))).toMatchObject({ ok: true, value: { tx, txFixed } }),
  );

  test.each([
    ['+', 446_006_250, /no usual shift/],
    ['-0.6x', 145_600_000, /not a shift/],
    ['y', 145_600_000, /not a transmit side/],
    ['-0.6+', 145_600_000, /./],
    ['-0.6 -0.6', 145_600_000, /./],
    ['-200 MHz', 145_600_000, /no usable frequency/],
  ])('%s at %d Hz is refused', (text, rx, reason) =>
    expect(parseTransmit(text, at(rx))).toMatchObject({ ok: false, reason: expect.stringMatching(reason) }),
  );

  test('the other direction is taken, with a note', () =>
    expect(parseTransmit('+', at(145_700_000))).toMatchObject({
      value: { tx: 146_300_000 },
      note: expect.stringContaining('-0.6'),
    }));

  test('entry understands whatever display shows', () => {
    fc.assert(
      fc.property(anyFrequency, fc.option(anyFrequency), fc.boolean(), (rx, tx, fixed) => {
        const transmit = { tx, txFixed: fixed && tx !== null && tx !== rx };
        const text = formatTransmit(transmit, rx);
        expect(parseTransmit(text, at(rx))).toMatchObject({ ok: true, value: transmit });
      }),
      { numRuns: 1000 },
    );
  });
});

describe('usual shifts', () => {
  test.each([
    ['orrin', 51_500_000, -500_000],
    ['orrin', 145_700_000, -600_000],
    ['orrin', 430_887_500, 7_600_000],
    ['orrin', 433_162_500, 1_600_000],
    ['orrin', 439_000_000, -7_600_000],
    ['orrin', 145_500_000, undefined],
    ['itu2', 146_940_000, -600_000],
    ['itu2', 147_060_000, 600_000],
    ['itu2', 444_000_000, 5_000_000],
    ['itu1', 145_600_000, -600_000],
  ] as const)('%s %d', (region, rx, shift) => expect(usualShift(rx, region)?.shift).toBe(shift));

  test('are shown with their sign', () => {
    expect(formatShift(7_600_000)).toBe('+7.6');
    expect(formatShift(-600_000)).toBe('-0.6');
    expect(formatShift(5_000_000)).toBe('+5.0');
    expect(formatShift(-12_500)).toBe('-0.0125');
  });
});

describe('when receive changes', () => {
  test('a shift is carried along', () =>
    expect(carryTransmit({ tx: 145_000_000, txFixed: false }, 145_600_000, 145_650_000, 'orrin')).toEqual({
      tx: 145_050_000,
      txFixed: false,
    }));
  test('so is a usual shift that was typed as a frequency', () =>
    expect(carryTransmit({ tx: 145_000_000, txFixed: true }, 145_600_000, 145_650_000, 'orrin').tx).toBe(
      145_050_000,
    ));
  test('a split made by absolute entry is not', () =>
    expect(carryTransmit({ tx: 144_900_000, txFixed: true }, 145_600_000, 145_650_000, 'orrin').tx).toBe(
      144_900_000,
    ));
  test('listen only stays so', () =>
    expect(carryTransmit({ tx: null, txFixed: false }, 145_600_000, 145_650_000, 'orrin').tx).toBeNull());
  test('the shift survives any change of receive', () => {
    fc.assert(
      fc.property(anyFrequency, anyFrequency, fc.integer({ min: -1000, max: 1000 }), (from, to, steps) => {
        const shift = steps * 12_500;
        fc.pre(isFrequency(from + shift));
        expect(carryTransmit({ tx: from + shift, txFixed: false }, from, to, 'itu1').tx! - to).toBe(shift);
      }),
    );
  });
});
