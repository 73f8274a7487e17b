import { additionsOf } from './addition';
import { FREE_446 } from './licence-free';
import type { Range } from './frequency';
import type { Mode } from './mode';
import type { Milliwatts } from './power';
import { MARINE_SOURCE } from './marine';
import type { Grade, Region } from './region';
import { ORRIN_OFFICE, RADIO_REGULATIONS, type Source } from './source';

export type Service =
  | 'amateur'
  | 'licence-free'
  | 'air'
  | 'marine'
  | 'weather'
  | 'public safety'
  | 'business'
  | 'broadcast';

/** A stretch of spectrum: whose it is, and who may transmit there with how much. Edges in Hz. */
export interface Allocation extends Range {
  service: Service;
  /** The trade's name of the band: `2 m`. */
  band: string;
  /** Highest power in mW by grade; a grade that is missing may not transmit here. */
  power: Partial<Record<Grade, Milliwatts>>;
  /** The modes that may be sent; undefined for any. */
  modes?: readonly Mode[];
  /** Where only these channels may be used: their frequencies, Hz. */
  channels?: readonly number[];
  note?: string;
}

const WATT = 1000;
const mhz = (value: number) => Math.round(value * 1_000_000);

function amateur(
  band: string,
  from: number,
  to: number,
  entry: number | undefined,
  full: number,
  more: Pick<Allocation, 'modes' | 'note'> = {},
): Allocation {
  const power = entry === undefined ? { full: full * WATT } : { entry: entry * WATT, full: full * WATT };
  return { service: 'amateur', band, from: mhz(from), to: mhz(to), power, ...more };
}

function other(service: Service, band: string, from: number, to: number, note: string): Allocation {
  return { service, band, from: mhz(from), to: mhz(to), power: {}, note };
}

const NARROW: readonly Mode[] = ['CW', 'LSB', 'USB'];

/** The Orrin Spectrum Office's table, in the made-up world of the demo. */
const ORRIN: readonly Allocation[] = [
  amateur('160 m', 1.81, 2.0, undefined, 400, { modes: NARROW }),
  amateur('80 m', 3.5, 3.8, 10, 400, { modes: NARROW }),
  amateur('60 m', 5.3515, 5.3665, undefined, 15, { modes: NARROW, note: 'Secondary; 15 W EIRP.' }),
  amateur('40 m', 7.0, 7.2, 10, 400, { modes: NARROW }),
  amateur('30 m', 10.1, 10.15, undefined, 100, { modes: ['CW'], note: 'Secondary.' }),
  amateur('20 m', 14.0, 14.35, 10, 400, { modes: NARROW }),
  amateur('17 m', 18.068, 18.168, undefined, 400, { modes: NARROW }),
  amateur('15 m', 21.0, 21.45, 10, 400, { modes: NARROW }),
  amateur('12 m', 24.89, 24.99, undefined, 400, { modes: NARROW }),
  amateur('10 m', 28.0, 29.7, 10, 400),
  amateur('6 m', 50.0, 52.0, 10, 100),
  other('air', 'Airband', 117.975, 137, 'Aircraft and aerodromes only.'),
  amateur('2 m', 144.0, 144.4, 10, 100, { modes: NARROW, note: 'Narrow modes only, up to 144.400.' }),
  amateur('2 m', 144.4, 146.0, 10, 100),
  other('marine', 'Marine', 156.0, 162.05, 'Ships and coast stations with a marine certificate.'),
  other('weather', 'Weather', 162.375, 162.575, 'Broadcasts of the weather service.'),
  other('public safety', 'Rescue', 168.0, 169.0, 'Isles Rescue.'),
  amateur('1.25 m', 222.0, 225.0, undefined, 50, { note: 'Orrin only.' }),
  other('public safety', 'Rescue', 410.0, 412.0, 'Isles Rescue.'),
  amateur('70 cm', 430.0, 440.0, 10, 100),
  {
    service: 'licence-free',
    band: 'Licence-free',
    from: mhz(446.0),
    to: mhz(446.2),
    power: { none: 500, entry: 500, full: 500 },
    modes: ['NFM', 'DMR'],
    channels: FREE_446,
    note: 'Half a watt, narrow modes, fixed aerials.',
  },
  other('business', 'Business', 450.0, 470.0, 'Licensed firms, a frequency each.'),
  amateur('23 cm', 1240, 1300, undefined, 25, { note: 'Secondary.' }),
];

const ITU_POWER = 1500;
const itu = (band: string, from: number, to: number, note?: string) =>
  amateur(band, from, to, ITU_POWER, ITU_POWER, note === undefined ? {} : { note });
const LF = amateur('2200 m', 0.1357, 0.1378, 1, 1, { note: 'Secondary; 1 W EIRP (No. 5.67A).' });
const MF = amateur('630 m', 0.472, 0.479, 1, 1, { note: 'Secondary; 1 W EIRP (No. 5.80A).' });
/** 15 W; some countries of region 2 have 20 or 25 (No. 5.133B), which are additions. */
const CHANNEL_60M = amateur('60 m', 5.3515, 5.3665, 15, 15, { note: 'Secondary; 15 W EIRP (No. 5.133B).' });

/** 30 m to 10 m, alike in all three regions. */
const SHORTWAVE = [
  itu('30 m', 10.1, 10.15, 'Secondary.'),
  itu('20 m', 14.0, 14.35),
  itu('17 m', 18.068, 18.168),
  itu('15 m', 21.0, 21.45),
  itu('12 m', 24.89, 24.99),
  itu('10 m', 28.0, 29.7),
];

/** 5.8 GHz upwards, alike but for the top of the 5 GHz band. */
const MICROWAVE = [
  itu('3 cm', 10_000, 10_500, 'Secondary.'),
  itu('1.2 cm', 24_000, 24_250, 'Secondary above 24.05 GHz.'),
  itu('6 mm', 47_000, 47_200),
  itu('4 mm', 76_000, 81_000, 'Primary from 77.5 to 78 GHz.'),
  itu('2.5 mm', 122_250, 123_000, 'Secondary.'),
  itu('2 mm', 134_000, 141_000, 'Secondary above 136 GHz.'),
  itu('1 mm', 241_000, 250_000, 'Secondary below 248 GHz.'),
];

/**
 * Allocations that decide who may transmit. `orrin` is a made-up regulator; the three ITU regions follow the
 * amateur service's entries in Article 5 of the ITU Radio Regulations (2020). Their powers are the 1.5 kW
 * that no region exceeds in practice, or the limit that the table itself sets: a country's own licence is narrower.
 */
export const ALLOCATIONS: Record<Region, readonly Allocation[]> = {
  orrin: ORRIN,
  itu1: [
    LF,
    MF,
    itu('160 m', 1.81, 1.85),
    itu('80 m', 3.5, 3.8),
    CHANNEL_60M,
    itu('40 m', 7.0, 7.2),
    ...SHORTWAVE,
    itu('6 m', 50.0, 52.0, 'Secondary; primary in some countries (No. 5.166A).'),
    itu('2 m', 144.0, 146.0),
    itu('70 cm', 430.0, 440.0),
    itu('23 cm', 1240, 1300, 'Secondary.'),
    itu('13 cm', 2300, 2450, 'Secondary.'),
    itu('6 cm', 5650, 5850, 'Secondary.'),
    ...MICROWAVE,
  ],
  itu2: [
    LF,
    MF,
    itu('160 m', 1.8, 2.0),
    itu('80 m', 3.5, 4.0),
    CHANNEL_60M,
    itu('40 m', 7.0, 7.3),
    ...SHORTWAVE,
    itu('6 m', 50.0, 54.0),
    itu('2 m', 144.0, 148.0),
    itu('1.25 m', 220.0, 225.0, '220 to 222 MHz secondary in some countries.'),
    itu('70 cm', 430.0, 440.0, 'Secondary.'),
    itu('33 cm', 902, 928, 'Secondary.'),
    itu('23 cm', 1240, 1300, 'Secondary.'),
    itu('13 cm', 2300, 2450, 'Secondary.'),
    itu('9 cm', 3300, 3500, 'Secondary.'),
    itu('6 cm', 5650, 5925, 'Secondary.'),
    ...MICROWAVE,
  ],
  itu3: [
    LF,
    MF,
    itu('160 m', 1.8, 2.0),
    itu('80 m', 3.5, 3.9),
    CHANNEL_60M,
    itu('40 m', 7.0, 7.2),
    ...SHORTWAVE,
    itu('6 m', 50.0, 54.0),
    itu('2 m', 144.0, 148.0),
    itu('70 cm', 430.0, 440.0, 'Secondary.'),
    itu('23 cm', 1240, 1300, 'Secondary.'),
    itu('13 cm', 2300, 2450, 'Secondary.'),
    itu('9 cm', 3300, 3500, 'Secondary.'),
    itu('6 cm', 5650, 5850, 'Secondary.'),
    ...MICROWAVE,
  ],
};

/** The table that decides in each region. */
export const ALLOCATION_SOURCES: Record<Region, Source> = {
  orrin: ORRIN_OFFICE,
  itu1: RADIO_REGULATIONS,
  itu2: RADIO_REGULATIONS,
  itu3: RADIO_REGULATIONS,
};

/** Whose rules hold for somebody: the region's, what their country has beyond it, and whether they may speak as a ship. */
export interface Rules {
  region: Region;
  additions?: readonly string[] | undefined;
  marine?: boolean | undefined;
}

/** What a ship's certificate opens: the channels of Appendix 18, voice by FM, 25 W. */
const SHIP: readonly Allocation[] = [
  [156.0, 157.45],
  [160.6, 162.05],
].map(([from, to]) => ({
  service: 'marine',
  band: 'Marine',
  from: mhz(from!),
  to: mhz(to!),
  power: { none: 25 * WATT, entry: 25 * WATT, full: 25 * WATT },
  modes: ['FM'],
  note: 'Ships and coast stations, 25 W.',
}));

/** All allocations that hold for somebody. */
export function allocationsOf({ region, additions = [], marine = false }: Rules): readonly Allocation[] {
  if (additions.length === 0 && !marine) return ALLOCATIONS[region];
  return [
    ...(marine ? SHIP : []),
    ...ALLOCATIONS[region],
    ...additionsOf(region).flatMap(({ id, allocations }) => (additions.includes(id) ? allocations : [])),
  ];
}

/** The table that an allocation stands in. */
export function sourceOf(allocation: Allocation | undefined, region: Region): Source {
  if (allocation && SHIP.includes(allocation)) return MARINE_SOURCE;
  return (
    additionsOf(region).find(({ allocations }) => allocation && allocations.includes(allocation))?.source ??
    ALLOCATION_SOURCES[region]
  );
}
