import { z } from 'zod';
import { candidates, readRow, registerPageSchema, type Candidate, type Entry } from '../core/directory';
import { MODELS } from '../core/models';
import type { Point } from '../core/radio';
import { getPlan, wantModel } from './plans';
import { Problem } from './problem';

/** The directories that Veridon knows. */
export const DIRECTORIES = [
  { id: 'relay-register', name: 'Relay Register', holds: 'repeaters and stations of the Orrin Isles' },
] as const;

/** Where the bench process answers, directories and all. */
export function benchUrl(): string {
  return process.env.VERIDON_BENCH_URL ?? 'http://127.0.0.1:4321';
}

/** How long a directory may take for one page before it counts as not answering. */
const PATIENCE_MS = Number(process.env.VERIDON_DIRECTORY_PATIENCE_MS ?? 8000);
/** Pages that are fetched at most; the rest is said to be left. */
const MOST_PAGES = 20;
const LONGEST_ANSWER = 4_000_000;

const trouble = (status: number, kind: string, detail: string) =>
  new Problem(status, kind, 'The Relay Register cannot be used just now', detail);

async function ask(path: string): Promise<unknown> {
  let text: string;
  try {
    const response = await fetch(new URL(path, benchUrl()), {
      signal: AbortSignal.timeout(PATIENCE_MS),
      cache: 'no-store',
    });
    if (!response.ok)
      throw trouble(
        502,
        'directory-refused',
        `It answered with status ${response.status}. Try again in a while.`,
      );
    text = await response.text();
  } catch (error) {
    if (error instanceof Problem) throw error;
    if ((error as Error).name === 'TimeoutError')
      throw trouble(
        504,
        'directory-slow',
        `It did not answer within ${PATIENCE_MS / 1000} seconds. Your plan is as it was; try again, or search a smaller circle.`,
      );
    const refused = String((error as Error).cause ?? '').includes('ECONNREFUSED');
    throw trouble(
      502,
      refused ? 'directory-away' : 'directory-cut-off',
      refused
        ? 'Nothing answers at its address. Is the bench process running (npm run bench)?'
        : 'The connection broke before the answer was whole. Try again.',
    );
  }
  if (text.length > LONGEST_ANSWER)
    throw trouble(
      502,
      'directory-rubbish',
      'Its answer is larger than any honest one. Nothing of it was used.',
    );
  try {
    return JSON.parse(text);
  } catch {
    throw trouble(
      502,
      'directory-rubbish',
      'What it sent is not a list of entries. Nothing of it was used; try again later.',
    );
  }
}

const rubbish = () =>
  trouble(
    502,
    'directory-rubbish',
    'What it sent is not a list of entries. Nothing of it was used; try again later.',
  );

const placesSchema = z.object({
  places: z
    .array(
      z.object({ name: z.string().max(60), island: z.string().max(60), lat: z.number(), lon: z.number() }),
    )
    .max(100),
});

/** Places of the gazetteer whose name holds the text. */
export async function findPlaces(text: string) {
  const parsed = placesSchema.safeParse(await ask(`/register/places?q=${encodeURIComponent(text)}`));
  if (!parsed.success) throw rubbish();
  return parsed.data.places;
}

export interface Search extends Point {
  radiusKm: number;
  planId?: string;
  modelId?: string;
}

export interface SearchAnswer {
  candidates: Candidate[];
  /** Rows that could not be read, with what is wrong with each. */
  skipped: string[];
  /** Entries that the register has beyond what was fetched. */
  beyond: number;
}

/** Searches the Relay Register around a point and holds what it finds against a plan and its model. */
export async function searchRegister({ lat, lon, radiusKm, planId, modelId }: Search): Promise<SearchAnswer> {
  const kept = planId === undefined ? null : await getPlan(planId);
  const model = wantModel(modelId ?? kept?.plan.modelId ?? MODELS[0]!.id);
  const entries: Entry[] = [];
  const skipped: string[] = [];
  let pages = 1;
  let total = 0;
  for (let page = 1; page <= Math.min(pages, MOST_PAGES); page++) {
    const parsed = registerPageSchema.safeParse(
      await ask(`/register/entries?lat=${lat}&lon=${lon}&radius_km=${radiusKm}&page=${page}`),
    );
    if (!parsed.success) throw rubbish();
    ({ pages, total } = parsed.data);
    for (const row of parsed.data.entries) {
      const read = readRow(row);
      if (read.ok) entries.push(read.value);
      else skipped.push(read.reason);
    }
  }
  return {
    candidates: candidates(entries, { lat, lon }, model, kept?.plan ?? null),
    skipped,
    beyond: Math.max(0, total - entries.length - skipped.length),
  };
}
