import { z } from 'zod';
import {
  listedPersonSchema,
  loadSchema,
  personIdSchema,
  personMarkSchema,
  rollSchema,
} from '../core/people/person.schema';
import { text } from '../core/text.schema';
import { operation } from './operation';

const most = z.coerce.number().int().min(1).max(200);

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
