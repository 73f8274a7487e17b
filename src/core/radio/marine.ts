import type { Hertz } from './frequency';
import type { Source } from './source';

/** Channels of the maritime mobile service in the VHF band, and what each is for where that matters. */
export const MARINE_SOURCE: Source = {
  title: 'ITU Radio Regulations, Appendix 18',
  edition: '2020',
};

export interface MarineChannel {
  /** 1 to 28 and 60 to 88. */
  number: number;
  /** What ships send on, Hz. */
  ship: Hertz;
  /** What coast stations send on; the same on channels of one frequency. */
  coast: Hertz;
}

/** A duplex pair lies so far apart, Hz: the coast station is above the ship. */
export const MARINE_SHIFT = 4_600_000;

const ONE_FREQUENCY = new Set([
  6, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 67, 68, 69, 70, 71, 72, 73, 74, 75, 76, 77, 87, 88,
]);

const numbers = [
  ...Array.from({ length: 28 }, (_, i) => i + 1),
  ...Array.from({ length: 29 }, (_, i) => i + 60),
];

/** Channel 1 lies at 156.050 MHz, channel 60 at 156.025, each next 50 kHz up. */
export const MARINE_CHANNELS: readonly MarineChannel[] = numbers.map((number) => {
  const ship = number < 60 ? 156_050_000 + (number - 1) * 50_000 : 156_025_000 + (number - 60) * 50_000;
  return { number, ship, coast: ship + (ONE_FREQUENCY.has(number) ? 0 : MARINE_SHIFT) };
});

/**
 * The channel of which `rx` and `tx` are the two sides, as a ship has it (it hears the coast), as a coast station has it, or
 * on one frequency; undefined where they are none.
 */
export function marineChannel(rx: Hertz, tx: Hertz): MarineChannel | undefined {
  return MARINE_CHANNELS.find(
    ({ ship, coast }) => (rx === coast && tx === ship) || (rx === ship && tx === coast),
  );
}
