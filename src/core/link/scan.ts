/** The bytes of a stream that are not a whole frame yet. */
export type Pending = Uint8Array;
export const NOTHING_PENDING: Pending = new Uint8Array();

/** How the frames of a link lie in a stream: a start byte, a head of fixed length that tells how long the payload is, a check behind it. */
export interface Framing<F> {
  start: number;
  headBytes: number;
  checkBytes: number;
  /** The length of the payload by the head that begins at `at`; null where that is no head. */
  payloadBytes(stream: Uint8Array, at: number): number | null;
  /** True where the check that stands at `end` holds for the frame that begins at `at`. */
  holds(stream: Uint8Array, at: number, end: number): boolean;
  frame(stream: Uint8Array, at: number, end: number): F;
}

/** What the bytes of a stream come to: frames that are whole and sound, damaged starts that were skipped, and what to hand in with the next bytes. */
export interface Scanned<F> {
  frames: F[];
  damaged: number;
  pending: Pending;
}

/** Takes the next bytes of a stream, split anywhere. Who finds a check wrong throws away the start byte and looks for the next. */
export function scanFrames<F>(framing: Framing<F>, pending: Pending, bytes: Uint8Array): Scanned<F> {
  const stream = new Uint8Array(pending.length + bytes.length);
  stream.set(pending);
  stream.set(bytes, pending.length);
  const frames: F[] = [];
  let damaged = 0;
  let at = 0;
  while (at < stream.length) {
    if (stream[at] !== framing.start) {
      at++;
      continue;
    }
    if (stream.length - at < framing.headBytes) break;
    const length = framing.payloadBytes(stream, at);
    if (length === null) {
      at++;
      continue;
    }
    const end = at + framing.headBytes + length;
    if (stream.length < end + framing.checkBytes) break;
    if (!framing.holds(stream, at, end)) {
      damaged++;
      at++;
      continue;
    }
    frames.push(framing.frame(stream, at, end));
    at = end + framing.checkBytes;
  }
  return { frames, damaged, pending: stream.slice(at) };
}

/**
 * What is left of a stream whose next bytes do not come: the frame that was begun is given up, since its length may be
 * what was damaged, and what came behind its start is looked through.
 */
export const giveUp = <F>(framing: Framing<F>, pending: Pending): Scanned<F> =>
  scanFrames(framing, NOTHING_PENDING, pending.slice(1));
