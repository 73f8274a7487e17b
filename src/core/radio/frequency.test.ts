import * as fc from '../property.test.kit';
import { anyFrequency } from '../samples.test.kit';
import { airName, formatFrequency, parseFrequency, nearestOnStep, nearestOnSteps, onStep } from '.';

const TWO_METRES = [{ from: 136_000_000, to: 174_000_000 }];

describe('frequency entry', () => {
  test('entry understands whatever display shows', () => {
    fc.assert(
      fc.property(anyFrequency, (hz) => {
        expect(parseFrequency(formatFrequency(hz))).toMatchObject({ ok: true, value: hz });
        expect(parseFrequency(`${formatFrequency(hz)} MHz`, TWO_METRES)).toMatchObject({
          ok: true,
          value: hz,
        });
      }),
      { numRuns: 2000 },
    );
  });

  test('no text makes it throw, and what it accepts can be shown', () => {
    fc.assert(
      fc.property(fc.oneof(fc.string(), fc.stringMatching(/^[\d.,kMHz' ]{0,14}$/)), (text) => {
        const parsed = parseFrequency(text);
        if (parsed.ok)
          expect(parseFrequency(formatFrequency(parsed.value))).toMatchObject({ value: parsed.value });
        else expect(parsed.reason.length).toBeGreaterThan(10);
      }),
      { numRuns: 2000 },
    );
  });
});

test('an airband channel has the name of its spacing', () => {
  expect(airName(132_000_000, '8.33')).toBe('132.005');
  expect(airName(132_000_000, '25')).toBe('132.000');
  expect(airName(132_016_667, '8.33')).toBe('132.015');
  expect(parseFrequency('132.005')).toMatchObject({ note: expect.stringContaining('8.33') });
});

test('display has three to five decimals, six for 8.33 kHz channels', () => {
  expect(formatFrequency(145_600_000)).toBe('145.600');
  expect(formatFrequency(145_612_500)).toBe('145.6125');
  expect(formatFrequency(145_606_250)).toBe('145.60625');
  expect(formatFrequency(7_030_000)).toBe('7.030');
  expect(formatFrequency(132_008_333)).toBe('132.008333');
});

describe('steps', () => {
  test('12.5 kHz holds 145.6125 but not 145.605, whose neighbours are 145.600 and 145.6125', () => {
    expect(onStep(145_612_500, 12_500)).toBe(true);
    expect(onStep(145_605_000, 12_500)).toBe(false);
    expect(nearestOnStep(145_605_000, 12_500)).toBe(145_600_000);
    expect(nearestOnSteps(145_606_000, [12_500, 5_000])).toBe(145_605_000);
  });
  test('8.33 kHz is a third of 25 kHz', () => {
    expect(onStep(132_008_333, '8.33')).toBe(true);
    expect(onStep(132_016_667, '8.33')).toBe(true);
    expect(onStep(132_010_000, '8.33')).toBe(false);
    expect(nearestOnStep(132_010_000, '8.33')).toBe(132_008_333);
  });
  test('the nearest is on the step and never further than half of it', () => {
    fc.assert(
      fc.property(anyFrequency, fc.constantFrom(5_000, 6_250, 12_500, 25_000), (hz, step) => {
        const nearest = nearestOnStep(hz, step as 5_000);
        expect(nearest % step).toBe(0);
        expect(Math.abs(nearest - hz)).toBeLessThanOrEqual(step / 2);
      }),
    );
  });
});
