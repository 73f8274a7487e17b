import { entryOf, type Entry } from '../core/directory';
import { channelsIn, readFile } from '../core/interchange';
import { USUAL_REGION } from '../core/radio';
import { fail, ok, type Result } from '../core/result';
import { NEW_IDS } from './new-ids';
import { LISTED } from './stations';

/** Stations that are told at once. */
const STRETCH = 500;

export interface DirectoryRead {
  kept: number;
  /** Rows whose station has no place: it cannot be searched. */
  placeless: number;
  /** Rows of which no station came. */
  refused: { line: number; text: string; reason: string }[];
}

/** Reads a file as a directory of stations, and tells them in stretches; `day` is when, as YYYY-MM-DD. */
export async function readDirectory(
  { bytes, day }: { bytes: Uint8Array; day: string },
  part: (stations: Entry[]) => Promise<void>,
): Promise<Result<DirectoryRead>> {
  const read = await readFile(bytes);
  if (!read.ok) return read;
  const made = channelsIn(read.value, { region: USUAL_REGION }, NEW_IDS.channel);
  const entries = made.channels.flatMap((channel, n) => entryOf(channel, `row ${n + 1}`, day) ?? []);
  if (entries.length === 0)
    return fail(
      made.refused[0] && made.channels.length === 0
        ? `No channel came of it. Line ${made.refused[0].line}: ${made.refused[0].reason}`
        : 'A directory is searched by place, and this file says of no station where it is. It wants latitude and longitude, or a locator.',
    );
  for (let from = 0; from < entries.length; from += STRETCH) await part(entries.slice(from, from + STRETCH));
  return ok({
    kept: entries.length,
    placeless: made.channels.length - entries.length,
    refused: made.refused.slice(0, LISTED),
  });
}
