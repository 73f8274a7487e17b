import { z } from 'zod';
import { wantedText } from '../text.schema';

/** A list of short forms, as word and short form; each word once, whatever its case. */
export const abbreviationsSchema = z
  .array(
    z.tuple([wantedText(32).refine((word) => !/\s/.test(word), 'is more than one word'), wantedText(12)]),
  )
  .max(500)
  .refine(
    (list) => new Set(list.map(([word]) => word.toLowerCase())).size === list.length,
    'has a word twice',
  );
