import { z } from 'zod';
import type { Point } from '../radio';
import type { Result } from '../result';
import type { Entry } from './entry';

/** A circle that is asked for; one service of stations, or all. */
export interface Circle extends Point {
  radiusKm: number;
  service?: string;
}

export const sourceInfoSchema = z.object({
  id: z.string(),
  name: z.string(),
  holds: z.string(),
  /** True where it answers nobody without a name and password. */
  wantsAccount: z.boolean().optional(),
});
/** What a source says of itself, for people. */
export type SourceInfo = z.infer<typeof sourceInfoSchema>;

/**
 * Where stations come from: a directory, a file, a starter set, all alike. `read` yields stations one by one, and for each
 * that cannot be understood the reason; what keeps all of them away (nobody answers) is thrown. `total` is how many there are by the source's
 * own count, known when the first has been yielded.
 */
export interface Source extends SourceInfo {
  read(query: Circle, signal: AbortSignal): AsyncIterable<Result<Entry>> & { total(): number };
}

/** All that a source has to say to a query, in two heaps. */
export async function readAll(
  source: Source,
  query: Circle,
  signal: AbortSignal,
): Promise<{ entries: Entry[]; skipped: string[]; total: number }> {
  const entries: Entry[] = [];
  const skipped: string[] = [];
  const stations = source.read(query, signal);
  for await (const station of stations) {
    if (station.ok) entries.push(station.value);
    else skipped.push(station.reason);
  }
  return { entries, skipped, total: stations.total() };
}
