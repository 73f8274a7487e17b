import { z } from 'zod';

/** Most documents that one uses. */
export const USES_LIMIT = 50;

/** The id of a document of any type. */
export const documentIdSchema = z
  .string()
  .regex(
    /^[a-z]{2}_[a-z0-9]{4,32}$/,
    'is not the id of a document: it must be two letters, _ and 4 to 32 letters or digits',
  );

/** The documents that one uses, each at one of its revisions. */
export const usesSchema = z
  .array(z.object({ document: documentIdSchema, revision: z.int().min(1) }))
  .max(USES_LIMIT)
  .refine(
    (uses) => new Set(uses.map(({ document }) => document)).size === uses.length,
    'names the same document twice',
  );
