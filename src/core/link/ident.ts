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
  };
}
