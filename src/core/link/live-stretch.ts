import { bigEndian, blockFrame, LONGEST_BLOCK_PAYLOAD, numberIn } from './block-frame';
import { crc32 } from './frame';

/** Stretches of an image that are other than before, as a live link says them: address (3), length (2), the bytes. */
export interface Stretch {
  at: number;
  bytes: Uint8Array;
}

const HEAD_BYTES = 5;
/** Bytes that are alike between two that are not, and are cheaper said again than begun anew. */
const GAP = HEAD_BYTES;
/** No stretch is longer, so that several fit into a frame. */
const LONGEST = 512;

/** Where two images of one length differ, in order. */
export function differing(before: Uint8Array, after: Uint8Array): Stretch[] {
  const found: { from: number; to: number }[] = [];
  for (let at = 0; at < after.length; at++) {
    if (before[at] === after[at]) continue;
    const last = found.at(-1);
    if (last && at - last.to <= GAP && at - last.from < LONGEST) last.to = at + 1;
    else found.push({ from: at, to: at + 1 });
  }
  return found.map(({ from, to }) => ({ at: from, bytes: after.slice(from, to) }));
}

/** Where a change says on which image it is made, by its CRC-32. */
export const SUM_AT = 3;
export const SUM_BYTES = 4;
const CHANGE_HEAD_BYTES = SUM_AT + SUM_BYTES;

/**
 * The frames of a change that was made on `before`: of each payload first its number (0 of the radio's own), how many frames there are,
 * which this is, and the sum of `before`; then stretches.
 */
export function changeFrames(
  command: 'set' | 'changed',
  number: number,
  before: Uint8Array,
  stretches: readonly Stretch[],
): Uint8Array[] {
  const sum = bigEndian(crc32(before), SUM_BYTES);
  const parts: number[][] = [[]];
  for (const { at, bytes } of stretches) {
    const room = LONGEST_BLOCK_PAYLOAD - CHANGE_HEAD_BYTES - HEAD_BYTES - bytes.length;
    if (parts.at(-1)!.length > room) parts.push([]);
    parts.at(-1)!.push(...bigEndian(at, 3), ...bigEndian(bytes.length, 2), ...bytes);
  }
  return parts.map((part, place) => blockFrame(command, 0, [number, parts.length, place, ...sum, ...part]));
}

/** A change of which parts have come, in their order; undefined where one was lost. */
export interface Coming {
  of: number;
  stretches: readonly Stretch[];
  /** How many have come. */
  parts: number;
}

/** Takes the next part of a change: all of it, or what has come so far; undefined where it does not follow. */
export function nextPart(coming: Coming | null, payload: Uint8Array, length: number): Coming | undefined {
  const [, of, place] = payload;
  if (of === undefined || place === undefined || place >= of) return undefined;
  const stretches = readStretches(payload.subarray(CHANGE_HEAD_BYTES), length);
  const before = place === 0 ? { of, stretches: [], parts: 0 } : coming;
  if (!stretches || before?.parts !== place || before.of !== of) return undefined;
  return { of, stretches: [...before.stretches, ...stretches], parts: place + 1 };
}

/** Reads stretches of an image of so many bytes; undefined where they are none. */
export function readStretches(payload: Uint8Array, length: number): Stretch[] | undefined {
  const stretches: Stretch[] = [];
  for (let from = 0; from < payload.length;) {
    if (payload.length - from < HEAD_BYTES) return undefined;
    const at = numberIn(payload, from, 3);
    const bytes = payload.slice(from + HEAD_BYTES, from + HEAD_BYTES + numberIn(payload, from + 3, 2));
    if (bytes.length === 0 || bytes.length !== numberIn(payload, from + 3, 2) || at + bytes.length > length)
      return undefined;
    stretches.push({ at, bytes });
    from += HEAD_BYTES + bytes.length;
  }
  return stretches;
}

/** An image with stretches put over it. */
export function applyStretches(image: Uint8Array, stretches: readonly Stretch[]): Uint8Array {
  const next = image.slice();
  for (const { at, bytes } of stretches) next.set(bytes, at);
  return next;
}
