import { z } from 'zod';
import { fail, ok } from '../../result';
import { defineCodec, wholeBytes } from '../codec';

/** Parts of a degree in the bytes. */
const PARTS = 1_000_000;
/** All bits set: no place. */
const NONE = 0xffff_ffff;

/** A place on Earth: latitude, then longitude, each in millionths of a degree in four bytes, signed, least significant byte first. */
export const coordinate = defineCodec({
  schema: z.object({ kind: z.literal('coordinate'), at: z.int().min(0) }),
  bits: ({ at }) => wholeBytes(at, 8),
  read(image, base, { at }) {
    const view = new DataView(image.buffer, image.byteOffset + base + at, 8);
    if (view.getUint32(0, true) === NONE && view.getUint32(4, true) === NONE) return ok(null);
    const [lat, lon] = [view.getInt32(0, true) / PARTS, view.getInt32(4, true) / PARTS];
    return Math.abs(lat) <= 90 && Math.abs(lon) <= 180 ? ok({ lat, lon }) : fail(`${lat}, ${lon}`);
  },
  write(image, base, { at }, value) {
    const view = new DataView(image.buffer, image.byteOffset + base + at, 8);
    if (value === null) {
      view.setUint32(0, NONE, true);
      view.setUint32(4, NONE, true);
      return;
    }
    if (typeof value !== 'object' || !('lat' in value)) throw new Error(`${String(value)} is no place`);
    view.setInt32(0, Math.round(value.lat * PARTS), true);
    view.setInt32(4, Math.round(value.lon * PARTS), true);
  },
});
