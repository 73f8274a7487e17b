/**
 * Channel names of the VHF airband (ICAO Annex 10, volume V, table 4-1 bis): with 8.33 kHz spacing the six figures
 * are a name, not a frequency. Of each 25 kHz block, names ending +5, +10 and +15 kHz stand for the frequencies
 * +0, +8.333 and +16.667 kHz; names on the block itself keep 25 kHz spacing.
 */

const AIRBAND = { from: 117_975_000, to: 137_000_000 };
const BLOCK_HZ = 25_000;
const OFFSETS = new Map([
  [5_000, 0],
  [10_000, 8_333],
  [15_000, 16_667],
]);

/** True for 117.975 to 137 MHz. */
export function inAirband(hz: number): boolean {
  return hz >= AIRBAND.from && hz <= AIRBAND.to;
}

/** The span in which channels have names of six figures, 118.000 to 136.990 (the same table): below it nothing is named. */
export function inNamedAirband(hz: number): boolean {
  return hz >= 118_000_000 && hz < AIRBAND.to;
}

/** True where `hz`, read as the figures of a name, is a name of either spacing. */
export function isAirName(hz: number): boolean {
  return hz % BLOCK_HZ === 0 || readsAsAirName(hz);
}

/** The names next below and next above figures that name nothing, as Hz. */
export function airNeighbours(hz: number): [number, number] {
  const step = 5_000;
  let below = Math.floor(hz / step) * step;
  let above = below + step;
  while (!isAirName(below)) below -= step;
  while (!isAirName(above)) above += step;
  return [below, above];
}

/** True where `hz`, read as the figures of a name, is a name of the 8.33 kHz scheme. */
export function readsAsAirName(hz: number): boolean {
  return OFFSETS.has(hz % BLOCK_HZ);
}

/** The frequency that a name stands for; `nameHz` is the name's figures as Hz (132.010 is 132_010_000). */
export function airFrequencyOf(nameHz: number): number {
  const offset = OFFSETS.get(nameHz % BLOCK_HZ);
  return offset === undefined ? nameHz : Math.floor(nameHz / BLOCK_HZ) * BLOCK_HZ + offset;
}

/** True for the frequencies that only an 8.33 kHz channel can have, which are not whole tens of Hz. */
export function isAirRaster(hz: number): boolean {
  return inAirband(hz) && (hz % BLOCK_HZ === 8_333 || hz % BLOCK_HZ === 16_667);
}

/**
 * The name of an airband channel.
 * @example airName(132_000_000, '8.33') // '132.005'
 */
export function airName(hz: number, spacing: '8.33' | '25'): string {
  const block = Math.floor(hz / BLOCK_HZ) * BLOCK_HZ;
  let name = hz;
  if (spacing === '8.33')
    for (const [nameOffset, offset] of OFFSETS) if (hz - block === offset) name = block + nameOffset;
  const kilohertz = Math.round(name / 1000);
  return `${Math.floor(kilohertz / 1000)}.${String(kilohertz % 1000).padStart(3, '0')}`;
}
