import { crc32 } from './frame';
import { giveUp, scanFrames, type Framing, type Pending } from './scan';

/**
 * Frames of the block link: start, command, address (3), length (2; most significant byte first), payload, check. The check is CRC-32
 * (ISO/IEC 8802-3) over command to payload.
 */

export const BLOCK_START = 0x02;
const HEAD_BYTES = 7;
const CHECK_BYTES = 4;
/** Bytes that a frame adds to its payload. */
export const BLOCK_OVERHEAD = HEAD_BYTES + CHECK_BYTES;
/** No payload is longer; a length over it is noise. */
export const LONGEST_BLOCK_PAYLOAD = 1024;

/** What the host commands, in capitals, and what the radio answers, in small letters. */
export const BLOCK_COMMANDS = {
  hello: 0x48,
  here: 0x68,
  give: 0x47,
  given: 0x67,
  sum: 0x53,
  summed: 0x73,
  open: 0x4f,
  opened: 0x6f,
  put: 0x50,
  taken: 0x70,
  close: 0x43,
  closed: 0x63,
  people: 0x51,
  counted: 0x71,
  openPeople: 0x57,
  module: 0x4d,
  moving: 0x6d,
  no: 0x6e,
  live: 0x4c,
  lively: 0x6c,
  set: 0x54,
  isSet: 0x74,
  beat: 0x42,
  beats: 0x62,
  changed: 0x65,
  turned: 0x75,
} as const;
export type BlockCommand = keyof typeof BLOCK_COMMANDS;
const COMMAND_OF = new Map(
  Object.entries(BLOCK_COMMANDS).map(([name, byte]) => [byte as number, name as BlockCommand]),
);

export interface BlockFrame {
  command: BlockCommand;
  /** 0 to 0xffffff: a place in the memory of the module, a module's number, or what an answer answers. */
  address: number;
  payload: Uint8Array;
}

const number = (bytes: Uint8Array, at: number, length: number) => {
  let value = 0;
  for (let i = 0; i < length; i++) value = value * 256 + bytes[at + i]!;
  return value;
};
/** Writes a number as `length` bytes from `at` on, most significant first. */
function setNumber(bytes: Uint8Array | number[], at: number, length: number, value: number): void {
  let rest = value;
  for (let i = length - 1; i >= 0; i--) {
    bytes[at + i] = rest % 256;
    rest = Math.floor(rest / 256);
  }
}
/** A number as `length` bytes, most significant first. */
export function bigEndian(value: number, length: number): number[] {
  const bytes = new Array<number>(length);
  setNumber(bytes, 0, length, value);
  return bytes;
}

/** The bytes of a frame. */
export function blockFrame(command: BlockCommand, address = 0, payload: ArrayLike<number> = []): Uint8Array {
  const bytes = new Uint8Array(BLOCK_OVERHEAD + payload.length);
  bytes[0] = BLOCK_START;
  bytes[1] = BLOCK_COMMANDS[command];
  setNumber(bytes, 2, 3, address);
  setNumber(bytes, 5, 2, payload.length);
  bytes.set(payload, HEAD_BYTES);
  const end = HEAD_BYTES + payload.length;
  setNumber(bytes, end, CHECK_BYTES, crc32(bytes.subarray(1, end)));
  return bytes;
}

const FRAMING: Framing<BlockFrame> = {
  start: BLOCK_START,
  headBytes: HEAD_BYTES,
  checkBytes: CHECK_BYTES,
  payloadBytes(stream, at) {
    const length = number(stream, at + 5, 2);
    return COMMAND_OF.has(stream[at + 1]!) && length <= LONGEST_BLOCK_PAYLOAD ? length : null;
  },
  holds: (stream, at, end) => crc32(stream.subarray(at + 1, end)) === number(stream, end, CHECK_BYTES),
  frame: (stream, at, end) => ({
    command: COMMAND_OF.get(stream[at + 1]!)!,
    address: number(stream, at + 2, 3),
    payload: stream.slice(at + HEAD_BYTES, end),
  }),
};

export const readBlockFrames = (pending: Pending, bytes: Uint8Array) => scanFrames(FRAMING, pending, bytes);
export const giveUpBlockFrame = (pending: Pending) => giveUp(FRAMING, pending);

/** What opens the write of a module: its length, 4 bytes, and its CRC-32, by which the radio knows it again after a write that broke off. */
export const openPayload = (image: Uint8Array): number[] => [
  ...bigEndian(image.length, 4),
  ...bigEndian(crc32(image), 4),
];
/** Reads a number of a payload. */
export const numberIn = number;
