/** A CTCSS tone in tenths of a hertz: 88.5 Hz is 885. */
export type Tone = number;

/** The CTCSS tones (TIA-603 group and the usual additions), tenths of Hz, 50 in all. */
export const TONES: readonly Tone[] = [
  670, 693, 719, 744, 770, 797, 825, 854, 885, 915, 948, 974, 1000, 1035, 1072, 1109, 1148, 1188, 1230, 1273,
  1318, 1365, 1413, 1462, 1514, 1567, 1598, 1622, 1655, 1679, 1713, 1738, 1773, 1799, 1835, 1862, 1899, 1928,
  1966, 1995, 2035, 2065, 2107, 2181, 2257, 2291, 2336, 2418, 2503, 2541,
];

/** A tone for people, in Hz with one decimal and no unit: `88.5`. */
export function formatTone(tone: Tone): string {
  return `${Math.floor(tone / 10)}.${tone % 10}`;
}

/** The tone of `list` nearest to `tone`; the lower of two as near. */
export function nearestTone(tone: Tone, list: readonly Tone[] = TONES): Tone {
  return list.reduce((best, next) => (Math.abs(next - tone) < Math.abs(best - tone) ? next : best));
}
