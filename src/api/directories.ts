import { z } from 'zod';
import { candidateSchema, sourceInfoSchema } from '../core/directory';
import { planIdSchema } from '../core/plan';
import { text } from '../core/text.schema';
import { operation } from './operation';

const placeSchema = z.object({ name: z.string(), island: z.string(), lat: z.number(), lon: z.number() });
export type Place = z.infer<typeof placeSchema>;

const entriesAnswer = z.object({
  candidates: z.array(candidateSchema),
  /** Rows that could not be read, with what is wrong with each. */
  skipped: z.array(z.string()),
  /** Entries that the register has beyond what was fetched. */
  beyond: z.int(),
});
export type EntriesAnswer = z.infer<typeof entriesAnswer>;

/** The operations on directories. */
export const directoryApi = {
  directories: operation('GET', '/api/directories', 'The directories that can be searched', {
    response: z.object({ directories: z.array(sourceInfoSchema) }),
  }),
  places: operation('GET', '/api/directories/relay-register/places', 'Places by name', {
    query: z.object({ q: text(60).default('') }),
    response: z.object({
      places: z.array(placeSchema),
      /** Where no place has that name: the one that is surely meant; the others are those nearest in spelling. */
      meant: z.string().nullable(),
    }),
    problems: [502, 504],
  }),
  entries: operation(
    'GET',
    '/api/directories/relay-register/entries',
    'Entries around a point, nearest first, held against a plan and a model',
    {
      query: z.object({
        lat: z.coerce.number().min(-90).max(90),
        lon: z.coerce.number().min(-180).max(180),
        radius: z.coerce.number().min(1, 'is under 1 km').max(500, 'is over 500 km'),
        plan: planIdSchema.optional(),
        model: text(40).optional(),
      }),
      response: entriesAnswer,
      problems: [404, 410, 422, 502, 504],
    },
  ),
};
