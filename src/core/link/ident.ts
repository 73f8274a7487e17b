/** What a radio says of itself over its link. */
export interface Ident {
  /** The model's 8 characters, spaces and all. */
  model: string;
  /** null where it has none to say. */
  serial: string | null;
  firmware: string;
  region: number;
  imageBytes: number;
  /** A write was begun and never finished: the memory is part old, part new. */
  halfWritten: boolean;
  /** Percent; null where its link does not say. */
  battery: number | null;
  /** The module that its link reaches just now, from 0. */
  module: number;
}

const BYTES = 24;
const text = (bytes: Uint8Array) => String.fromCharCode(...bytes);

/** 24 bytes: model 8, serial 8 (spaces where it has none), firmware 4, region 1, image length 2 (most significant first), state 1. */
export function identBytes(ident: Ident): Uint8Array {
  const bytes = new Uint8Array(BYTES);
  const put = (at: number, value: string, length: number) => {
    for (let i = 0; i < length; i++) bytes[at + i] = value.padEnd(length).charCodeAt(i);
  };
  put(0, ident.model, 8);
  put(8, ident.serial ?? '', 8);
  put(16, ident.firmware, 4);
  bytes.set([ident.region, ident.imageBytes >> 8, ident.imageBytes & 0xff, ident.halfWritten ? 1 : 0], 20);
  return bytes;
}

/** Reads an identification; undefined where it is none. */
export function readIdent(bytes: Uint8Array): Ident | undefined {
  if (bytes.length !== BYTES || bytes.subarray(0, 20).some((byte) => byte < 0x20 || byte > 0x7e))
    return undefined;
  return {
    model: text(bytes.subarray(0, 8)),
    serial: text(bytes.subarray(8, 16)).trimEnd() || null,
    firmware: text(bytes.subarray(16, 20)).trimEnd(),
    region: bytes[20]!,
    imageBytes: (bytes[21]! << 8) | bytes[22]!,
    halfWritten: bytes[23] === 1,
    battery: null,
    module: 0,
  };
}

const BLOCK_BYTES = 28;
/** In place of a percentage: it has no battery. */
const ON_MAINS = 0xff;

/** The same on a block link, 28 bytes: model 8, serial 8, firmware 4, region 1, image length 3, state 1, battery 1, module 1, zero 1. */
export function blockIdentBytes(ident: Ident): Uint8Array {
  const bytes = new Uint8Array(BLOCK_BYTES);
  bytes.set(identBytes(ident).subarray(0, 21));
  const { imageBytes } = ident;
  bytes.set([imageBytes >> 16, (imageBytes >> 8) & 0xff, imageBytes & 0xff], 21);
  bytes.set([ident.halfWritten ? 1 : 0, ident.battery ?? ON_MAINS, ident.module], 24);
  return bytes;
}

/** Reads an identification of a block link; undefined where it is none. */
export function readBlockIdent(bytes: Uint8Array): Ident | undefined {
  if (bytes.length !== BLOCK_BYTES) return undefined;
  // What both links say stands alike in both.
  const like = readIdent(bytes.slice(0, BYTES));
  return (
    like && {
      ...like,
      imageBytes: (bytes[21]! << 16) | (bytes[22]! << 8) | bytes[23]!,
      halfWritten: bytes[24] === 1,
      battery: bytes[25] === ON_MAINS ? null : Math.min(100, bytes[25]!),
      module: bytes[26]!,
    }
  );
}
