import { giveUp, scanFrames, type Framing, type Pending } from './scan';

/**
 * Frames of the stream link: start, type, sequence, length (most significant byte first), payload, check. The check is
 * the CRC-16 with polynomial 0x1021 and start value 0 (CRC-16/XMODEM) over type to payload.
 */

export const START = 0x01;
const HEAD_BYTES = 5;
const CHECK_BYTES = 2;
/** Bytes that a frame adds to its payload. */
export const FRAME_OVERHEAD = HEAD_BYTES + CHECK_BYTES;
/** No payload is longer; a length over it is noise. */
export const LONGEST_PAYLOAD = 1024;

/** What frames say. Host to radio: identify, read, again, write, block, end, done. Radio to host: ident, block, end, ready, ack, no. */
export const FRAME_TYPES = {
  identify: 0x49,
  ident: 0x69,
  read: 0x52,
  again: 0x51,
  write: 0x57,
  ready: 0x4b,
  block: 0x44,
  end: 0x45,
  ack: 0x41,
  no: 0x4e,
} as const;
export type FrameType = keyof typeof FRAME_TYPES;

export interface Frame {
  type: FrameType;
  /** 0 to 255: a block's number, or what an answer answers. */
  sequence: number;
  payload: Uint8Array;
}

const TYPE_OF = new Map(
  Object.entries(FRAME_TYPES).map(([type, byte]) => [byte as number, type as FrameType]),
);

const BYTES = Array.from({ length: 256 }, (_, byte) => byte);
/** Eight steps of a division, one a bit. */
const eight = (from: number, step: (rest: number) => number) => {
  let rest = from;
  for (let bit = 0; bit < 8; bit++) rest = step(rest);
  return rest;
};
// What a byte makes of an empty rest: a pass counts hundreds of thousands of them.
const CRC16 = Uint16Array.from(BYTES, (byte) =>
  eight(byte << 8, (rest) => (rest & 0x8000 ? (rest << 1) ^ 0x1021 : rest << 1) & 0xffff),
);
const CRC32 = Int32Array.from(BYTES, (byte) =>
  eight(byte, (rest) => (rest & 1 ? (rest >>> 1) ^ 0xedb88320 : rest >>> 1)),
);

/** CRC-16/XMODEM; its published check value for the text “123456789” is 0x31C3. */
export function crc16(bytes: Uint8Array, from = 0, to = bytes.length): number {
  let crc = 0;
  for (let i = from; i < to; i++) crc = ((crc << 8) & 0xffff) ^ CRC16[(crc >> 8) ^ bytes[i]!]!;
  return crc;
}

/** CRC-32 (ISO/IEC 8802-3, reflected polynomial EDB88320); its published check value for “123456789” is CBF43926. */
export function crc32(bytes: Uint8Array): number {
  let crc = -1;
  for (let i = 0; i < bytes.length; i++) crc = (crc >>> 8) ^ CRC32[(crc ^ bytes[i]!) & 0xff]!;
  return ~crc >>> 0;
}

/**
 * What ends an image: the CRC-32 of all its bytes, most significant first. The frames' own check has 16 bits and misses one
 * damage in 65,536; the whole is proved by a sum of another kind.
 */
export function imageSum(image: Uint8Array): Uint8Array {
  const sum = new Uint8Array(4);
  new DataView(sum.buffer).setUint32(0, crc32(image));
  return sum;
}

/** True where `sum` is that of the image. */
export function sumHolds(image: Uint8Array, sum: Uint8Array): boolean {
  const wanted = imageSum(image);
  return sum.length === wanted.length && wanted.every((byte, at) => byte === sum[at]);
}

/** The bytes of a frame. */
export function frameBytes(
  type: FrameType,
  sequence = 0,
  payload: Uint8Array = new Uint8Array(),
): Uint8Array {
  const bytes = new Uint8Array(FRAME_OVERHEAD + payload.length);
  bytes.set([START, FRAME_TYPES[type], sequence, payload.length >> 8, payload.length & 0xff]);
  bytes.set(payload, HEAD_BYTES);
  const crc = crc16(bytes, 1, HEAD_BYTES + payload.length);
  bytes.set([crc >> 8, crc & 0xff], HEAD_BYTES + payload.length);
  return bytes;
}

/** How the frames of the stream link lie. */
const FRAMING: Framing<Frame> = {
  start: START,
  headBytes: HEAD_BYTES,
  checkBytes: CHECK_BYTES,
  payloadBytes(stream, at) {
    const length = (stream[at + 3]! << 8) | stream[at + 4]!;
    return TYPE_OF.has(stream[at + 1]!) && length <= LONGEST_PAYLOAD ? length : null;
  },
  holds: (stream, at, end) => crc16(stream, at + 1, end) === ((stream[end]! << 8) | stream[end + 1]!),
  frame: (stream, at, end) => ({
    type: TYPE_OF.get(stream[at + 1]!)!,
    sequence: stream[at + 2]!,
    payload: stream.slice(at + HEAD_BYTES, end),
  }),
};

export const readFrames = (pending: Pending, bytes: Uint8Array) => scanFrames(FRAMING, pending, bytes);
export const giveUpFrame = (pending: Pending) => giveUp(FRAMING, pending);
