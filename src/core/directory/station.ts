import { z } from 'zod';
import { distanceKm, formatAccess } from '../radio';
import { entrySchema, type Entry } from './entry';

/** An entry as a source answered it. */
export interface Known {
  source: string;
  entry: Entry;
  /** When the source said so, ISO 8601. */
  asked: string;
}

export const stationSchema = z.object({
  source: z.string(),
  entry: entrySchema,
  asked: z.string(),
  /** Where else the same station stands, and what is said otherwise there. */
  also: z.array(z.object({ source: z.string(), ref: z.string(), differs: z.array(z.string()) })),
});
/** A station, with what other sources say of it. */
export type Station = z.infer<typeof stationSchema>;

/** Places of two sources that are no further apart are one, km: coordinates are written to a minute here and there. */
const ONE_PLACE_KM = 3;

/**
 * True where two entries of different sources are one station: the same pair of frequencies at one place, or under one call sign. What
 * opens it, its name and its power may be written otherwise.
 */
export const sameStation = (a: Entry, b: Entry): boolean =>
  a.output === b.output &&
  (a.input ?? a.output) === (b.input ?? b.output) &&
  ((a.call !== '' && a.call === b.call) || distanceKm(a, b) <= ONE_PLACE_KM);

/** What two entries of one station say otherwise, in words. */
export function differing(a: Entry, b: Entry): string[] {
  const said: string[] = [];
  if (formatAccess(a.access) !== formatAccess(b.access))
    said.push(`access ${formatAccess(b.access) || 'open'}`);
  if (a.mode !== b.mode) said.push(`mode ${b.mode}`);
  if (a.onAir !== b.onAir) said.push(b.onAir ? 'on the air' : 'off the air');
  if (a.encrypted !== b.encrypted) said.push(b.encrypted ? 'encrypted' : 'not encrypted');
  return said;
}

/**
 * Entries of several sources as stations: the same one of two sources is once, as that source has it which wrote it last, with what the
 * other says otherwise. Entries of one source are never taken together: it knows its own.
 */
export function stationsOf(known: readonly Known[]): Station[] {
  const stations: Station[] = [];
  const byOutput = new Map<number, Station[]>();
  // What was written last comes first, and the others join it; else in the order in which they came.
  const order = [...known].sort((a, b) =>
    a.entry.updated < b.entry.updated ? 1 : a.entry.updated > b.entry.updated ? -1 : 0,
  );
  for (const { source, entry, asked } of order) {
    const there = byOutput.get(entry.output) ?? [];
    const same = there.find(
      (one) =>
        one.source !== source &&
        !one.also.some((other) => other.source === source) &&
        sameStation(one.entry, entry),
    );
    if (same) {
      same.also.push({ source, ref: entry.ref, differs: differing(same.entry, entry) });
      continue;
    }
    const station: Station = { source, entry, asked, also: [] };
    stations.push(station);
    byOutput.set(entry.output, [...there, station]);
  }
  return stations;
}

/** What a station is told apart by among those of all sources. */
export const stationKey = ({ source, entry }: Pick<Station, 'source' | 'entry'>): string =>
  `${source} ${entry.ref}`;
