import { formatFrequency, within, type Hertz, type Range } from './frequency';
import { BAND_PLANS } from './band-plan';
import type { Region } from './region';
import type { Source } from './source';

/** A usual shift: on repeater outputs in the range, transmit lies `shift` Hz from receive. */
export interface UsualShift extends Range {
  band: string;
  shift: number;
}

const span = (band: string, from: number, to: number, shift: number): UsualShift => ({
  band,
  from: Math.round(from * 1_000_000),
  to: Math.round(to * 1_000_000),
  shift: Math.round(shift * 1_000_000),
});

/**
 * Usual shifts by region, keyed by the repeater's output. Orrin: the plan of the Orrin Spectrum Office. The ITU
 * regions: defaults after the band plans of the three regional amateur organisations; a country may differ.
 */
export const USUAL_SHIFTS: Record<Region, readonly UsualShift[]> = {
  orrin: [
    span('10 m', 29.6, 29.7, -0.1),
    span('6 m', 51.3, 51.99, -0.5),
    span('2 m', 145.6, 145.8, -0.6),
    span('1.25 m', 223.85, 225, -1.6),
    span('70 cm', 430.4, 431.2, 7.6),
    span('70 cm', 433.0, 433.4, 1.6),
    span('70 cm', 438.65, 439.45, -7.6),
    span('23 cm', 1297, 1298, -6),
  ],
  itu1: [
    span('10 m', 29.61, 29.7, -0.1),
    span('6 m', 51.81, 51.99, -0.6),
    span('2 m', 145.575, 145.7935, -0.6),
    span('70 cm', 433.0, 433.4, 1.6),
    span('70 cm', 438.2, 438.525, -7.6),
    span('70 cm', 438.65, 439.425, -7.6),
    span('23 cm', 1297, 1297.475, -6),
  ],
  itu2: [
    span('10 m', 29.61, 29.7, -0.1),
    span('6 m', 51.62, 51.98, -0.5),
    span('6 m', 52.5, 52.98, -0.5),
    span('6 m', 53.5, 53.98, -0.5),
    span('2 m', 145.2, 145.5, -0.6),
    span('2 m', 146.61, 146.995, -0.6),
    span('2 m', 147.0, 147.39, 0.6),
    span('1.25 m', 223.85, 225, -1.6),
    span('70 cm', 442, 445, 5),
    span('70 cm', 447, 450, -5),
    span('33 cm', 927, 928, -25),
    span('23 cm', 1282, 1288, -12),
  ],
  itu3: [
    span('10 m', 29.61, 29.7, -0.1),
    span('6 m', 53, 54, -1),
    span('2 m', 146.6, 147.0, -0.6),
    span('2 m', 147.005, 147.4, 0.6),
    span('70 cm', 438, 439.999, -5),
    span('23 cm', 1273, 1274, 20),
  ],
};

/** Where the usual shifts are from. */
export const SHIFT_SOURCES: Record<Region, Source> = {
  orrin: { title: 'Orrin Spectrum Office, repeater plan', edition: '2026' },
  itu1: BAND_PLANS.itu1.source,
  itu2: BAND_PLANS.itu2.source,
  itu3: BAND_PLANS.itu3.source,
};

/** The usual shift for a receive frequency in Hz, or undefined where repeaters have no usual shift there. */
export function usualShift(rx: Hertz, region: Region): UsualShift | undefined {
  return USUAL_SHIFTS[region].find((usual) => within(rx, usual));
}

/** True where `tx` lies the usual shift from `rx`. */
export function isUsualShift(rx: Hertz, tx: Hertz, region: Region): boolean {
  return usualShift(rx, region)?.shift === tx - rx;
}

/** A shift for people, in MHz with its sign and no unit: `+7.6`, `-0.6`, `+1.0`. */
export function formatShift(shift: number): string {
  const [whole, decimals] = formatFrequency(Math.abs(shift)).split('.');
  return `${shift < 0 ? '-' : '+'}${whole}.${decimals!.replace(/(?<=.)0+$/, '')}`;
}
