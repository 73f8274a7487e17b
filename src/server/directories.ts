import { z } from 'zod';
import type { EntriesAnswer } from '../api';
import {
  candidates,
  nearSpellings,
  readAll,
  readRow,
  registerPageSchema,
  type Circle,
  type Source,
  type SourceInfo,
} from '../core/directory';
import { MODELS } from '../core/models';
import type { PlanId } from '../core/plan';
import type { ProblemKind } from '../core/problems';
import type { Point } from '../core/radio';
import { text } from '../core/text.schema';
import { benchHeaders, benchUrl } from './bench-address';
import { fetchJson, FetchFailed, giveUpAfter } from './fetch-json';
import { getPlan, wantModel } from './plans';
import { Problem } from './problem';

/** How long a directory may take for a whole search before it counts as not answering. */
const PATIENCE_MS = Number(process.env.VERIDON_DIRECTORY_PATIENCE_MS ?? 8000);
/** Pages that are fetched at most; the rest is said to be left. */
const MOST_PAGES = 20;
/** Bytes of one page; a page of 500 full rows has a quarter of that. */
const LONGEST_PAGE = 1_000_000;

const trouble = (status: number, kind: ProblemKind, detail: string) =>
  new Problem(status, kind, 'The Relay Register cannot be used just now', detail);

const rubbish = () =>
  trouble(
    502,
    'directory-rubbish',
    'What it sent is not a list of entries. Nothing of it was used; try again later.',
  );

/** What is said of each way in which a directory can fail. */
function troubleOf({ trouble: what }: FetchFailed): Problem {
  if (typeof what === 'object')
    return trouble(502, 'directory-refused', `It answered with status ${what.status}. Try again in a while.`);
  switch (what) {
    case 'slow':
      return trouble(
        504,
        'directory-slow',
        `It did not answer within ${PATIENCE_MS / 1000} seconds. Your plan is as it was; try again, or search a smaller circle.`,
      );
    case 'away':
      return trouble(
        502,
        'directory-away',
        'Nothing answers at its address. Is the bench process running (npm run bench)?',
      );
    case 'cut off':
      return trouble(
        502,
        'directory-cut-off',
        'The connection broke before the answer was whole. Try again.',
      );
    case 'too large':
      return trouble(
        502,
        'directory-rubbish',
        'Its answer is larger than any honest one. Nothing of it was used.',
      );
    case 'not JSON':
      return rubbish();
  }
}

async function ask(path: string, signal: AbortSignal): Promise<unknown> {
  try {
    return await fetchJson(new URL(path, benchUrl()), {
      most: LONGEST_PAGE,
      signal,
      headers: benchHeaders(),
    });
  } catch (error) {
    throw error instanceof FetchFailed ? troubleOf(error) : error;
  }
}

const placesSchema = z.object({
  places: z.array(z.object({ name: text(60), island: text(60), lat: z.number(), lon: z.number() })).max(100),
});

async function places(text: string, signal: AbortSignal, most = 12) {
  const parsed = placesSchema.safeParse(
    await ask(`/register/places?q=${encodeURIComponent(text)}&most=${most}`, signal),
  );
  if (!parsed.success) throw rubbish();
  return parsed.data.places;
}

/**
 * Places of the gazetteer whose name holds the text; where none does, those nearest in spelling, and in `meant` the one that
 * is surely meant.
 */
export async function findPlaces(text: string, gone?: AbortSignal) {
  const signal = giveUpAfter(PATIENCE_MS, gone);
  const found = await places(text, signal);
  if (found.length > 0 || text.trim() === '') return { places: found, meant: null };
  const { near, meant } = nearSpellings(text, await places('', signal, 100), ({ name }) => name);
  return { places: near, meant: meant?.name ?? null };
}

export interface Search extends Point {
  radiusKm: number;
  planId?: PlanId;
  modelId?: string;
}

/** The Relay Register, page by page. A row that cannot be read costs only itself. */
export const RELAY_REGISTER: Source = {
  id: 'relay-register',
  name: 'Relay Register',
  holds: 'repeaters and stations of the Orrin Isles',
  read({ lat, lon, radiusKm, service }, signal) {
    let total = 0;
    const of = service === undefined ? '' : `&service=${encodeURIComponent(service)}`;
    async function* stations() {
      let pages = 1;
      for (let page = 1; page <= Math.min(pages, MOST_PAGES); page++) {
        const parsed = registerPageSchema.safeParse(
          await ask(
            `/register/entries?lat=${lat}&lon=${lon}&radius_km=${radiusKm}&page=${page}${of}`,
            signal,
          ),
        );
        if (!parsed.success) throw rubbish();
        ({ pages, total } = parsed.data);
        for (const row of parsed.data.entries) yield readRow(row);
      }
    }
    return Object.assign(stations(), { total: () => total });
  },
};

/** The sources that Veridon knows. */
export const SOURCES: readonly Source[] = [RELAY_REGISTER];

/** What the sources say of themselves. */
export const listSources = (): SourceInfo[] => SOURCES.map(({ id, name, holds }) => ({ id, name, holds }));

/** What the Relay Register has around a point, of one service or of all; rows that cannot be read are named and left out. */
export const registerEntries = (query: Circle, signal: AbortSignal) => readAll(RELAY_REGISTER, query, signal);

/** Searches the Relay Register around a point and holds what it finds against a plan and its model. */
export async function searchRegister(
  { lat, lon, radiusKm, planId, modelId }: Search,
  gone?: AbortSignal,
): Promise<EntriesAnswer> {
  const signal = giveUpAfter(PATIENCE_MS, gone);
  const kept = planId === undefined ? null : await getPlan(planId);
  const model = wantModel(modelId ?? kept?.plan.modelId ?? MODELS[0]!.id);
  const { entries, skipped, total } = await registerEntries({ lat, lon, radiusKm }, signal);
  return {
    candidates: candidates(entries, { lat, lon }, model, kept?.plan ?? null),
    skipped,
    beyond: Math.max(0, total - entries.length - skipped.length),
  };
}
