import { isFrequency } from '../radio';
import { NAME_LIMIT, type Channel, type ChannelChange, type ChannelSet, type Column } from '../plan';
import { lengthOf } from '../text';

/** Where a name ends in a number: what stands before it, and the number with its zeros. */
const NUMBERED = /^(.*?)(\d+)(\D*)$/;

/** The name that counts on by `by` from one that has a number in it; null where it has none, or it does not fit any more. */
export function countedName(name: string, by: number): string | null {
  const match = NUMBERED.exec(name);
  if (!match) return null;
  const [, before, figures, after] = match as unknown as [string, string, string, string];
  const next = Number(figures) + by;
  if (next < 0 || figures.length > 9) return null;
  // Zeros before it are kept as wide as they stand; without them it is as long as it needs to be.
  const width = figures.startsWith('0') ? figures.length : 1;
  const counted = `${before}${String(next).padStart(width, '0')}${after}`;
  return lengthOf(counted) <= NAME_LIMIT ? counted : null;
}

/** How far apart the first two are, where there are two, they differ, and they are all in one row of steps. */
const stepOf = (first: number, second: number | undefined, otherwise: number) =>
  second === undefined || second === first ? otherwise : second - first;

/** The number in a name. */
const numberIn = (name: string) => {
  const match = NUMBERED.exec(name);
  return match ? Number(match[2]) : undefined;
};

/**
 * Counts on from the first of the channels through the others: receive by the step between the first two, or by `step` Hz where
 * they are the same, transmit carried along by the shift of the first; the number in the name likewise. Other columns are not
 * counted. Channels to which it does not lead on a usable frequency stay.
 */
export function countDown(
  channels: readonly Channel[],
  columns: readonly Column[],
  step: number,
): ChannelChange[] {
  const [first, second] = channels;
  if (!first) return [];
  const rxStep = stepOf(first.rx, second?.rx, step);
  const [from, then] = [numberIn(first.name), second && numberIn(second.name)];
  // Two names with numbers give the step where they are otherwise alike; a name that stands alone counts by one.
  const alike = second && first.name.replace(/\d+/g, '#') === second.name.replace(/\d+/g, '#');
  const nameStep = from === undefined ? 0 : stepOf(from, alike ? then : undefined, 1);
  return channels.slice(1).flatMap((channel, index): ChannelChange[] => {
    const n = index + 1;
    const set: ChannelSet = {};
    if (columns.includes('rx')) {
      const rx = first.rx + n * rxStep;
      const tx = first.tx === null ? null : first.txFixed ? first.tx : rx + (first.tx - first.rx);
      if (isFrequency(rx) && (tx === null || isFrequency(tx)))
        Object.assign(set, { rx, tx, txFixed: first.tx !== null && first.txFixed });
    }
    if (columns.includes('name')) {
      const name = countedName(first.name, n * nameStep);
      if (name !== null) set.name = name;
    }
    return Object.keys(set).length > 0 ? [{ id: channel.id, set }] : [];
  });
}
