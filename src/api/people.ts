import { z } from 'zod';
import {
  boardLoadSchema,
  boardSchema,
  listedPersonSchema,
  loadSchema,
  personIdSchema,
  personMarkSchema,
  rollSchema,
} from '../core/people/person.schema';
import { text, wantedText } from '../core/text.schema';
import { operation } from './operation';

const most = z.coerce.number().int().min(1).max(200);

const day = z.string().regex(/^\d{4}-\d\d-\d\d$/, 'is no day such as 2026-11-20');
/** Numbers with commas. */
const numbers = z
  .string()
  .max(2000)
  .regex(/^(\d{1,8}(,\d{1,8})*)?$/, 'is no list of numbers such as 100,110');

/** The operations on people: the roll, those in it, and what one says of them. */
export const peopleApi = {
  roll: operation('GET', '/api/people/roll', 'The roll in use, and one that is being loaded', {
    response: z.object({ roll: rollSchema.nullable(), load: loadSchema.nullable() }),
  }),
  loadRoll: operation(
    'POST',
    '/api/people/roll',
    'Begins to load the Ident Roll anew; it counts once it is whole',
    {
      status: 202,
      response: loadSchema,
      problems: [409, 507],
    },
  ),
  loadFile: operation(
    'POST',
    '/api/people/file',
    'Begins to load a file in the place of the roll: CSV, XLSX or JSON, packed by gzip, as base64',
    {
      body: z.strictObject({
        name: wantedText(80),
        gzip: z.base64().min(4).max(3_900_000, 'is longer than what is taken at once; part it'),
      }),
      status: 202,
      response: loadSchema,
      problems: [409, 413, 422, 507],
    },
  ),
  stopRoll: operation('DELETE', '/api/people/roll', 'Stops what is being loaded; the roll in use stays', {
    response: z.object({ load: loadSchema.nullable() }),
  }),
  people: operation('GET', '/api/people', 'People by number, a stretch of them', {
    query: z.object({
      from: z.coerce.number().int().min(0).max(5_000_000).default(0),
      count: most.default(100),
    }),
    response: z.object({ people: z.array(listedPersonSchema), of: z.int() }),
  }),
  findPeople: operation(
    'GET',
    '/api/people/found',
    'People of whom every word begins a word: number, call sign, name or place',
    {
      query: z.object({ q: text(100), most: most.default(50) }),
      response: z.object({ people: z.array(listedPersonSchema), more: z.boolean() }),
    },
  ),
  board: operation('GET', '/api/heard-board', 'The log of key-ups in use, and one that is being loaded', {
    response: z.object({ board: boardSchema.nullable(), load: boardLoadSchema.nullable() }),
  }),
  loadBoard: operation(
    'POST',
    '/api/heard-board',
    'Begins to load the Heard Board anew; it counts once it is whole',
    { status: 202, response: boardLoadSchema, problems: [409, 507] },
  ),
  stopBoard: operation('DELETE', '/api/heard-board', 'Stops what is being loaded; the log in use stays', {
    response: z.object({ load: boardLoadSchema.nullable() }),
  }),
  rankedPeople: operation(
    'GET',
    '/api/people/ranked',
    'People by how often they keyed up, pinned first, and how much of all that is heard so many of them are',
    {
      query: z.object({
        /** Talkgroups by number, with commas; all of them where there are none. */
        groups: numbers.default(''),
        from: day.optional(),
        to: day.optional(),
        who: z.enum(['in the roll', 'all']).default('in the roll'),
        most: z.coerce.number().int().min(1).max(10_000).default(200),
      }),
      response: z.object({
        ranked: z.array(listedPersonSchema.extend({ keyUps: z.int() })),
        people: z.int(),
        keyUps: z.int(),
        /** What is no person by the rule: how many numbers, and their key-ups. */
        left: z.object({ numbers: z.int(), keyUps: z.int() }),
        curve: z.array(z.object({ people: z.int(), keyUps: z.int() })),
      }),
    },
  ),
  markedPeople: operation('GET', '/api/people/marked', 'Everybody of whom something is said', {
    response: z.object({ people: z.array(listedPersonSchema) }),
  }),
  markPerson: operation('POST', '/api/people/marked/{id}', 'Pins a person, or notes something of them', {
    params: z.object({ id: z.coerce.number().pipe(personIdSchema) }),
    body: z.strictObject({ pinned: personMarkSchema.shape.pinned, note: text(200) }),
    response: listedPersonSchema,
    problems: [404, 507],
  }),
};
