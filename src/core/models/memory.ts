import { z } from 'zod';

/**
 * How a radio's memory lies, as data. Everything that a field or a mark names is ours to write; every other bit is the
 * radio's and survives a write.
 */

/** How one value stands in bytes. Offsets are counted from the record (or, for settings, from the image). */
export const codecSchema = z.discriminatedUnion('kind', [
  /** Packed binary-coded decimal, least significant byte first, counting `unit` Hz; all bits set is “none”. */
  z.object({
    kind: z.literal('bcd'),
    at: z.int().min(0),
    bytes: z.int().min(1).max(6),
    unit: z.int().min(1),
  }),
  /** One of `values`, by its index in `width` bits of a byte from bit `shift` up. */
  z.object({
    kind: z.literal('choice'),
    at: z.int().min(0),
    shift: z.int().min(0).max(7),
    width: z.int().min(1).max(8),
    values: z.array(z.union([z.string(), z.number(), z.boolean()])).min(2),
  }),
  /** A tone or code in one byte: 0 none, `tonesFrom` + index a tone, `codesFrom` + index a code; polarity in one bit elsewhere. */
  z.object({
    kind: z.literal('squelch'),
    at: z.int().min(0),
    tonesFrom: z.int().min(1),
    codesFrom: z.int().min(1),
    inverted: z.object({ at: z.int().min(0), bit: z.int().min(0).max(7) }),
  }),
  /** Characters of the model, one a byte in ASCII, filled with spaces. */
  z.object({ kind: z.literal('text'), at: z.int().min(0), bytes: z.int().min(1).max(32) }),
]);
export type Codec = z.infer<typeof codecSchema>;

/** A field of a channel record. The names are the keys of a fitted channel. */
export const CHANNEL_FIELDS = ['rx', 'tx', 'send', 'expect', 'mode', 'power', 'name'] as const;

/** One bit for each slot, lowest slot in the lowest bit of the first byte. */
const marksSchema = z.object({ at: z.int().min(0) });

/** A setting of the radio: what it is called for people, and how it stands. */
export const settingSchema = z.object({ key: z.string(), label: z.string(), codec: codecSchema });

/** Whose a stretch of memory is: `ours` in part or whole, the `unit`'s own, `volatile` (the radio changes it itself), or `unknown`. */
export const areaSchema = z.object({
  name: z.string(),
  from: z.int().min(0),
  bytes: z.int().min(1),
  owner: z.enum(['ours', 'unit', 'volatile', 'unknown', 'checksum']),
});

export const memoryMapSchema = z.object({
  bytes: z.int().min(16),
  areas: z.array(areaSchema),
  channels: z.object({
    from: z.int().min(0),
    stride: z.int().min(1),
    used: marksSchema,
    scan: marksSchema,
    fields: z.object(
      Object.fromEntries(CHANNEL_FIELDS.map((key) => [key, codecSchema])) as Record<
        (typeof CHANNEL_FIELDS)[number],
        typeof codecSchema
      >,
    ),
  }),
  settings: z.array(settingSchema),
  /** Sum of the bytes of a range, modulo 65536, least significant byte first. */
  checksum: z.object({ at: z.int().min(0), from: z.int().min(0), to: z.int().min(0) }),
});
export type MemoryMap = z.infer<typeof memoryMapSchema>;
export type Area = z.infer<typeof areaSchema>;
