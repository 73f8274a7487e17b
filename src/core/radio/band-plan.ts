import { within, type Hertz, type Range } from './frequency';
import type { Mode } from './mode';
import type { Region } from './region';
import type { Source } from './source';

/** Parts of the amateur bands that custom keeps for a use. Nobody is barred by them; who ignores them disturbs others. */
export interface BandPart extends Range {
  use: 'narrow' | 'satellite';
}

const mhz = (value: number) => Math.round(value * 1_000_000);
const narrow = (from: number, to: number): BandPart => ({ use: 'narrow', from: mhz(from), to: mhz(to) });
const satellite = (from: number, to: number): BandPart => ({
  use: 'satellite',
  from: mhz(from),
  to: mhz(to),
});

/** Below 28 MHz no band has room for more than a sideband. */
const SHORTWAVE = narrow(0.1357, 25);
const SATELLITES = [satellite(29.3, 29.51), satellite(145.8, 146), satellite(435, 438)];

export const BAND_PLANS: Record<Region, { source: Source; parts: readonly BandPart[] }> = {
  orrin: {
    source: { title: 'Orrin Radio Society, band plan', edition: '2026' },
    parts: [SHORTWAVE, narrow(28, 29), narrow(50, 50.4), narrow(432, 432.5), ...SATELLITES],
  },
  itu1: {
    source: { title: 'IARU Region 1 band plans', edition: '2016, VHF and up 2020' },
    parts: [
      SHORTWAVE,
      narrow(28, 29),
      narrow(50, 50.4),
      narrow(144, 144.491),
      narrow(432, 432.49),
      ...SATELLITES,
    ],
  },
  itu2: {
    source: { title: 'IARU Region 2 band plan', edition: '2016' },
    parts: [
      SHORTWAVE,
      narrow(28, 29),
      narrow(50, 50.3),
      narrow(144, 144.3),
      narrow(432, 432.4),
      ...SATELLITES,
    ],
  },
  itu3: {
    source: { title: 'IARU Region 3 band plans', edition: '2019' },
    parts: [
      SHORTWAVE,
      narrow(28, 29),
      narrow(50, 50.1),
      narrow(144, 144.035),
      narrow(431.9, 432.24),
      ...SATELLITES,
    ],
  },
};

/** The part of a use that holds a frequency. */
export function bandPart(hz: Hertz, use: BandPart['use'], region: Region): BandPart | undefined {
  return BAND_PLANS[region].parts.find((part) => part.use === use && within(hz, part));
}

/** Where everybody listens for FM calls without a repeater, Hz, by region. */
const FM_CALLING: Record<Region, readonly number[]> = {
  orrin: [29.6, 51.51, 145.5, 433.5],
  itu1: [29.6, 51.51, 145.5, 433.5],
  itu2: [29.6, 52.525, 146.52, 223.5, 446.0],
  itu3: [29.6],
};

/** True for an FM calling channel of the region, which goes without a tone. */
export function isCalling(hz: Hertz, mode: Mode, region: Region): boolean {
  return (mode === 'FM' || mode === 'NFM') && FM_CALLING[region].some((calling) => mhz(calling) === hz);
}
