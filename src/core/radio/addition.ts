import type { Allocation } from './allocation';
import {
  CITIZENS_27,
  CITIZENS_477,
  FAMILY_462,
  FAMILY_467,
  FREE_446,
  MULTI_151,
  MULTI_154,
} from './licence-free';
import type { Mode } from './mode';
import type { Region } from './region';
import { RADIO_REGULATIONS, type Source } from './source';

/**
 * What some countries of a region have beyond its common table. A plan names those that hold where it is used; they go by
 * the footnote or the rule that gives them, since which countries these are changes with every edition.
 */
export interface Addition {
  id: string;
  regions: readonly Region[];
  /** What it gives, in a line. */
  name: string;
  source: Source;
  allocations: readonly Allocation[];
}

const mhz = (value: number) => Math.round(value * 1_000_000);
const footnote = (number: string): Source => ({
  title: `${RADIO_REGULATIONS.title}, No. ${number}`,
  edition: RADIO_REGULATIONS.edition,
});

const amateur = (band: string, from: number, to: number, watts: number, note: string): Allocation => ({
  service: 'amateur',
  band,
  from: mhz(from),
  to: mhz(to),
  power: { entry: watts * 1000, full: watts * 1000 },
  note,
});

/** Open to everybody, licence or not; power in W. */
const free = (
  from: number,
  to: number,
  watts: number,
  modes: readonly Mode[],
  channels: readonly number[],
  note: string,
): Allocation => ({
  service: 'licence-free',
  band: 'Licence-free',
  from: mhz(from),
  to: mhz(to),
  power: { none: watts * 1000, entry: watts * 1000, full: watts * 1000 },
  modes,
  channels,
  note,
});

const citizens = (source: string) => [
  free(26.96, 27.41, 4, ['FM', 'NFM', 'AM'], CITIZENS_27, `40 channels at 10 kHz; ${source}.`),
  free(26.96, 27.41, 12, ['LSB', 'USB'], CITIZENS_27, `Peak envelope power; ${source}.`),
];

const SECONDARY_70CM = 'Secondary (No. 5.270).';

export const ADDITIONS = [
  {
    id: 'rr-5.96',
    regions: ['itu1'],
    name: '1.85 to 2 MHz with 10 W',
    source: footnote('5.96'),
    allocations: [amateur('160 m', 1.85, 2.0, 10, 'Mean power of 10 W at most (No. 5.96).')],
  },
  {
    id: 'rr-5.169',
    regions: ['itu1'],
    name: '50 to 54 MHz, primary',
    source: footnote('5.169'),
    allocations: [amateur('6 m', 50, 54, 1500, 'Primary (No. 5.169).')],
  },
  {
    id: 'rr-5.270',
    regions: ['itu2', 'itu3'],
    name: '420 to 430 and 440 to 450 MHz',
    source: footnote('5.270'),
    allocations: [
      amateur('70 cm', 420, 430, 1500, SECONDARY_70CM),
      amateur('70 cm', 440, 450, 1500, SECONDARY_70CM),
    ],
  },
  {
    id: 'rr-5.133b-20',
    regions: ['itu2'],
    name: '60 m with 20 W EIRP',
    source: footnote('5.133B'),
    allocations: [amateur('60 m', 5.3515, 5.3665, 20, 'Secondary; 20 W EIRP (No. 5.133B).')],
  },
  {
    id: 'rr-5.133b-25',
    regions: ['itu2'],
    name: '60 m with 25 W EIRP',
    source: footnote('5.133B'),
    allocations: [amateur('60 m', 5.3515, 5.3665, 25, 'Secondary; 25 W EIRP (No. 5.133B).')],
  },
  {
    id: 'free-446',
    regions: ['itu1'],
    name: 'Licence-free, 446.0 to 446.2 MHz',
    source: { title: 'ECC Decision (15)05', edition: '2015' },
    allocations: [free(446.0, 446.2, 0.5, ['NFM', 'DMR'], FREE_446, '16 channels at 12.5 kHz; 0.5 W ERP.')],
  },
  {
    id: 'free-27-ecc',
    regions: ['itu1'],
    name: 'Citizens’ band, 27 MHz',
    source: { title: 'ECC Decision (11)03', edition: '2011' },
    allocations: citizens('ECC Decision (11)03'),
  },
  {
    id: 'free-462',
    regions: ['itu2'],
    name: 'Licence-free family radio, 462 and 467 MHz',
    source: { title: '47 CFR part 95, subpart B', edition: '2017' },
    allocations: [
      free(462.54375, 462.73125, 2, ['NFM'], FAMILY_462, '15 channels at 12.5 kHz; 2 W ERP.'),
      free(467.55625, 467.71875, 0.5, ['NFM'], FAMILY_467, '7 channels at 12.5 kHz; 0.5 W ERP.'),
    ],
  },
  {
    id: 'free-151',
    regions: ['itu2'],
    name: 'Licence-free, 151 and 154 MHz',
    source: { title: '47 CFR part 95, subpart J', edition: '2017' },
    allocations: [
      free(151.8144, 151.9456, 2, ['NFM'], MULTI_151, '3 channels, 11.25 kHz wide; 2 W.'),
      free(154.56, 154.61, 2, ['FM', 'NFM'], MULTI_154, '2 channels, 20 kHz wide; 2 W.'),
    ],
  },
  {
    id: 'free-27-cfr',
    regions: ['itu2'],
    name: 'Citizens’ band, 27 MHz',
    source: { title: '47 CFR part 95, subpart D', edition: '2017' },
    allocations: citizens('47 CFR part 95'),
  },
  {
    id: 'free-477',
    regions: ['itu3'],
    name: 'Licence-free, 476.4 to 477.4 MHz',
    source: { title: 'Citizen band class licence', edition: '2015' },
    allocations: [free(476.41875, 477.41875, 5, ['NFM'], CITIZENS_477, '80 channels at 12.5 kHz; 5 W.')],
  },
] as const satisfies readonly Addition[];

export type AdditionId = (typeof ADDITIONS)[number]['id'];
export const ADDITION_IDS = ADDITIONS.map(({ id }) => id) as [AdditionId, ...AdditionId[]];

/** Those that there are in a region. */
export const additionsOf = (region: Region): readonly Addition[] =>
  (ADDITIONS as readonly Addition[]).filter(({ regions }) => regions.includes(region));
