import { z } from 'zod';

/** Numbers of people and groups on digital radio: 24 bits, of which the last 511 are for all of them and for the systems (ETSI TS 102 361-1, A.2). */
export const LAST_PERSON_ID = 16_776_415;
export const personIdSchema = z.int().min(1).max(LAST_PERSON_ID);

/** Longest fields, characters. */
export const PERSON_LIMITS = { call: 16, name: 40, place: 60 };

/** Somebody who is known by a number. A number and its name are one row, and never part. */
export const personSchema = z.object({
  id: personIdSchema,
  call: z.string().max(PERSON_LIMITS.call),
  first: z.string().max(PERSON_LIMITS.name),
  last: z.string().max(PERSON_LIMITS.name),
  town: z.string().max(PERSON_LIMITS.place),
  /** The island, or whatever part of the world it is. */
  area: z.string().max(PERSON_LIMITS.place),
});
export type Person = z.infer<typeof personSchema>;

/** What somebody says of a person: it stays whatever the roll says, and where the roll knows them no more. */
export const personMarkSchema = z.object({
  /** Pinned first, and chosen before all others. */
  pinned: z.boolean(),
  note: z.string().max(200),
});
export type PersonMark = z.infer<typeof personMarkSchema>;

/** A row of a roll that was left out, or taken with something cut off. */
export const oddRowSchema = z.object({
  /** Which row it is, from 1. */
  row: z.int(),
  reason: z.string(),
});
export type OddRow = z.infer<typeof oddRowSchema>;

/** What is told of what was left out: how many in all, and the first of them. */
export const oddRowsSchema = z.object({ count: z.int(), first: z.array(oddRowSchema) });
export type OddRows = z.infer<typeof oddRowsSchema>;

/** Most people of each kind whom the news of a roll names. */
export const NEWS_TOLD = 100;

/** What a roll has otherwise than the one before it: how many, and the first of them by number. */
export const rollNewsSchema = z.object({
  added: z.int(),
  changed: z.int(),
  gone: z.int(),
  first: z.array(
    z.object({
      what: z.enum(['added', 'changed', 'gone']),
      id: personIdSchema,
      /** Who it is, and who it was; empty where that is nobody. */
      is: z.string(),
      was: z.string(),
    }),
  ),
});
export type RollNews = z.infer<typeof rollNewsSchema>;

/** A roll that is in use. */
export const rollSchema = z.object({
  source: z.string(),
  made: z.string(),
  at: z.string(),
  people: z.int(),
  odd: oddRowsSchema,
  /** null where there was none before it. */
  news: rollNewsSchema.nullable(),
});
export type Roll = z.infer<typeof rollSchema>;

/** A roll that is being loaded, or what came of the last one that was. */
export const loadSchema = z.object({
  state: z.enum(['loading', 'done', 'failed', 'stopped']),
  /** What is said of it, in a sentence. */
  message: z.string(),
  people: z.int(),
  /** Of the file so far, bytes. */
  bytes: z.int(),
});
export type Load = z.infer<typeof loadSchema>;

/** A log of key-ups that is being loaded, or what came of the last one that was. */
export const boardLoadSchema = loadSchema.omit({ people: true }).extend({ keyUps: z.int() });
export type BoardLoad = z.infer<typeof boardLoadSchema>;

/** The log of key-ups that is in use. */
export const boardSchema = z.object({
  source: z.string(),
  at: z.string(),
  keyUps: z.int(),
  odd: oddRowsSchema,
  /** Its first and last day. */
  from: z.string(),
  to: z.string(),
  /** Talkgroups by number, those first on which most is said. */
  talkgroups: z.array(z.object({ number: z.int(), keyUps: z.int() })),
});
export type Board = z.infer<typeof boardSchema>;

/** A person with what one says of them. */
export const listedPersonSchema = personSchema.extend({
  mark: personMarkSchema.nullable(),
  /** False where the roll in use does not know them: what is shown is what was known when they were marked. */
  known: z.boolean(),
});
export type ListedPerson = z.infer<typeof listedPersonSchema>;
