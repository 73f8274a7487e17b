import type { Shape } from '../document/shape';
import { SCHEMAS } from './kinds.schema';
import { headSchema, planSchema } from './plan.schema';
import { FORMAT } from './plan';
import { PLAN_STRUCTURE } from './structure';

type Document = Record<string, unknown>;

/** By the format that a document has: what brings it to the next one. */
const MIGRATIONS: Readonly<Record<number, (document: Document) => Document>> = {
  // One list of slots and channels alone; a channel without a list is in the first, by its schema.
  1: (document) => ({ ...document, format: 2, zones: [] }),
  // Nothing of radios with sides, and no settings.
  2: (document) => ({
    ...document,
    format: 3,
    settings: {},
    origin: null,
    skipSets: [],
    scanEdges: [],
    setUps: [],
  }),
};

/** What plans are made of, with their schemas. */
export const PLAN_SHAPE: Shape = {
  ...PLAN_STRUCTURE,
  format: FORMAT,
  schemas: SCHEMAS,
  head: headSchema,
  document: planSchema,
  migrations: MIGRATIONS,
};
