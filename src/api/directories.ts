import { z } from 'zod';
import { candidateSchema, SET_KINDS } from '../core/directory';
import { OUT_FORMATS } from '../core/interchange';
import { channelFieldsSchema, PLAN_NAME_LIMIT, planIdSchema } from '../core/plan';
import { parseRoute, REGIONS } from '../core/radio';
import { text, wantedText } from '../core/text.schema';
import { fileOfOperation, operation } from './operation';

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

const stationsAnswer = entriesAnswer.extend({
  /** Which directories could not be asked, and why; what is kept of them is among the candidates all the same. */
  troubles: z.array(z.object({ source: z.string(), name: z.string(), trouble: z.string() })),
  /** How long the route is, km; null where none was asked for. */
  routeKm: z.number().nullable(),
});
export type StationsAnswer = z.infer<typeof stationsAnswer>;

const directoryRow = z.object({
  id: z.string(),
  name: z.string(),
  holds: z.string(),
  wantsAccount: z.boolean(),
  /** A file of one's own, which nobody asks and which can be taken away. */
  own: z.boolean(),
  /** True for a file that did not come in whole: nothing of it is kept. */
  brokenOff: z.boolean(),
  /** The name under which it is asked; null where there is none. */
  account: z.string().nullable(),
  /** How many of its stations are kept, and when it was last asked. */
  kept: z.int(),
  asked: z.string().nullable(),
});
export type DirectoryRow = z.infer<typeof directoryRow>;

/** Most places of a route. */
export const ROUTE_LIMIT = 120;
/** Most stations of one answer. */
export const STATIONS_LIMIT = 5000;

const routeSchema = text(3500).refine((typed) => {
  const places = parseRoute(typed)?.length ?? 0;
  return places >= 2 && places <= ROUTE_LIMIT;
}, `is no route: 2 to ${ROUTE_LIMIT} places such as 52.06,-29.84;51.9,-29.5`);

/** Most channels of a set of one's own. */
const SET_LIMIT = 2000;

const starterSet = z.object({
  id: z.string(),
  kind: z.enum(SET_KINDS),
  name: z.string(),
  service: z.string(),
  source: z.object({ title: z.string(), edition: z.string() }),
  channels: z.array(channelFieldsSchema),
});

/** The operations on directories. */
export const directoryApi = {
  directories: operation('GET', '/api/directories', 'The directories that can be searched', {
    response: z.object({ directories: z.array(directoryRow) }),
  }),
  keepOwn: operation('POST', '/api/directories/own', 'Takes a file as a directory of one’s own', {
    body: z.strictObject({
      name: wantedText(60),
      base64: z.base64().max(3_900_000, 'is longer than what is taken at once; part it'),
    }),
    status: 201,
    response: z.object({
      id: z.string(),
      kept: z.int(),
      /** Rows whose station has no place, so that it cannot be searched. */
      placeless: z.int(),
      refused: z.array(z.object({ line: z.int(), text: z.string(), reason: z.string() })),
    }),
    problems: [413, 422, 507],
  }),
  dropOwn: operation('DELETE', '/api/directories/own/{id}', 'Takes a directory of one’s own away', {
    params: z.object({ id: text(40) }),
    response: z.object({ id: z.string() }),
    problems: [404, 507],
  }),
  setAccount: operation(
    'POST',
    '/api/directories/{id}/account',
    'Keeps the name and password for a directory, once it has taken them; with null for both, forgets them',
    {
      params: z.object({ id: text(40) }),
      body: z.strictObject({ name: wantedText(100).nullable(), password: text(200).nullable() }),
      secrets: ['password'],
      response: z.object({ directories: z.array(directoryRow) }),
      problems: [404, 502, 504, 507],
    },
  ),
  stations: operation(
    'GET',
    '/api/stations',
    'Stations around a point, nearest first, or along a route in the order of travel, of all directories, held against a plan and a model',
    {
      query: z
        .object({
          lat: z.coerce.number().min(-90).max(90).optional(),
          lon: z.coerce.number().min(-180).max(180).optional(),
          /** Of the circle, or to either side of the route, km. */
          radius: z.coerce.number().min(1, 'is under 1 km').max(1000, 'is over 1000 km'),
          /** Places in order, in degrees: `52.06,-29.84;51.9,-29.5`. */
          route: routeSchema.optional(),
          /** Ids of directories and files, with commas; all of them where it is not said. */
          sources: text(400).optional(),
          /** Whether the directories themselves are asked: not, where what is kept is older than ten minutes, or in any case. */
          ask: z.enum(['no', 'yes', 'again']).default('yes'),
          most: z.coerce.number().pipe(z.int().min(1).max(STATIONS_LIMIT)).default(500),
          plan: planIdSchema.optional(),
          model: text(40).optional(),
        })
        .refine(
          ({ lat, lon, route }) => route !== undefined || (lat !== undefined && lon !== undefined),
          'wants lat and lon, or a route',
        ),
      response: stationsAnswer,
      problems: [404, 410, 422],
    },
  ),
  sets: operation('GET', '/api/starter-sets', 'Ready groups of channels: those of a region, and one’s own', {
    query: z.object({ region: z.enum(REGIONS).default('orrin') }),
    response: z.object({ sets: z.array(starterSet) }),
  }),
  keepSet: operation('POST', '/api/starter-sets', 'Keeps a group of channels to begin plans with', {
    body: z.strictObject({
      name: wantedText(60),
      channels: z.array(channelFieldsSchema).min(1).max(SET_LIMIT),
    }),
    status: 201,
    response: z.object({ id: z.string() }),
    problems: [422, 507],
  }),
  dropSet: operation('DELETE', '/api/starter-sets/{id}', 'Takes a group of one’s own away', {
    params: z.object({ id: text(60) }),
    response: z.object({ id: z.string() }),
    problems: [404, 507],
  }),
  exportStations: fileOfOperation(
    '/api/stations/export',
    'Stations as a file, as the channels that they would become',
    {
      body: z.strictObject({
        as: z.enum(OUT_FORMATS),
        name: wantedText(PLAN_NAME_LIMIT),
        stations: z
          .array(z.strictObject({ source: text(40), ref: text(80) }))
          .min(1)
          .max(STATIONS_LIMIT),
      }),
      type: 'application/octet-stream',
    },
  ),
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
