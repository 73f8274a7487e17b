import { z } from 'zod';
import type { EntriesAnswer } from '../api';
import { candidates, nearSpellings, readAll, stationsOf, type Circle } from '../core/directory';
import { MODELS } from '../core/models';
import type { PlanId } from '../core/plan';
import type { Point } from '../core/radio';
import { text } from '../core/text.schema';
import { giveUpAfter } from './fetch-json';
import { wantModel } from './models';
import { getPlan } from './plans';
import { askDirectory, patienceMs, RELAY_REGISTER, rubbish } from './sources';

const placesSchema = z.object({
  places: z.array(z.object({ name: text(60), island: text(60), lat: z.number(), lon: z.number() })).max(100),
});

async function places(text: string, signal: AbortSignal, most = 12) {
  const parsed = placesSchema.safeParse(
    await askDirectory(
      RELAY_REGISTER.name,
      `/register/places?q=${encodeURIComponent(text)}&most=${most}`,
      signal,
    ),
  );
  if (!parsed.success) throw rubbish(RELAY_REGISTER.name);
  return parsed.data.places;
}

/**
 * Places of the gazetteer whose name holds the text; where none does, those nearest in spelling, and in `meant` the one that
 * is surely meant.
 */
export async function findPlaces(text: string, gone?: AbortSignal) {
  const signal = giveUpAfter(patienceMs(), gone);
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

/** What the Relay Register has around a point, of one service or of all; rows that cannot be read are named and left out. */
export const registerEntries = (query: Circle, signal: AbortSignal) => readAll(RELAY_REGISTER, query, signal);

/** Searches the Relay Register around a point and holds what it finds against a plan and its model. */
export async function searchRegister(
  { lat, lon, radiusKm, planId, modelId }: Search,
  gone?: AbortSignal,
): Promise<EntriesAnswer> {
  const signal = giveUpAfter(patienceMs(), gone);
  const kept = planId === undefined ? null : await getPlan(planId);
  const model = wantModel(modelId ?? kept?.plan.modelId ?? MODELS[0]!.id);
  const { entries, skipped, total } = await registerEntries({ lat, lon, radiusKm }, signal);
  const asked = new Date().toISOString();
  const stations = stationsOf(entries.map((entry) => ({ source: RELAY_REGISTER.id, entry, asked })));
  return {
    candidates: candidates(stations, { kind: 'around', point: { lat, lon } }, model, kept?.plan ?? null),
    skipped,
    beyond: Math.max(0, total - entries.length - skipped.length),
  };
}
