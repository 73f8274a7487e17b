import { z } from 'zod';
import { radioIdSchema } from '../plan';

export const copyIdSchema = z.string().regex(/^cp_[a-z0-9]{4,40}$/, 'is not the id of a sealed copy');

/** Why a radio was read. `first read` is what it held when it came. */
export const COPY_REASONS = ['first read', 'read', 'before write', 'after write'] as const;
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
  /** What somebody says of it; empty where nothing. */
  note: z.string(),
});
/** Longest note on a sealed copy, characters. */
export const NOTE_LIMIT = 200;
export type Copy = z.infer<typeof copySchema>;
