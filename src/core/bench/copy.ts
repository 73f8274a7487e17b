import { z } from 'zod';
import { radioIdSchema } from '../plan';

export const copyIdSchema = z.string().regex(/^cp_[a-z0-9]{4,40}$/, 'is not the id of a sealed copy');

/** Why a radio was read. `first read` is what it held when it came. */
export const COPY_REASONS = [
  'first read',
  'read',
  'before write',
  'after write',
  'before restore',
  'after restore',
] as const;
export type CopyReason = (typeof COPY_REASONS)[number];

/** A read-out that is kept unchangeable; its bytes are asked for apart. */
export const copySchema = z.object({
  id: z.string(),
  radioId: radioIdSchema,
  modelId: z.string(),
  reason: z.enum(COPY_REASONS),
  /** Of the bytes, hexadecimal. */
  sha256: z.string(),
  takenAt: z.string(),
  bytes: z.int(),
  /** The plan that was written after or before it, with its revision; null where none was. */
  plan: z.object({ name: z.string(), revision: z.int() }).nullable(),
  /** What somebody says of it; empty where nothing. */
  note: z.string(),
});
/** Longest zip of a card that is read, bytes: its files are text, and would be smaller. */
export const CARD_ZIP_BYTES = 1_000_000;

/** What came of a card that was opened: whose it is, and the sealed copy of what is on it. */
export const cardOpenedSchema = z.object({
  radioId: radioIdSchema,
  copyId: copyIdSchema,
  called: z.string(),
});
export type CardOpened = z.infer<typeof cardOpenedSchema>;

/** Longest note on a sealed copy, characters. */
export const NOTE_LIMIT = 200;
export type Copy = z.infer<typeof copySchema>;
