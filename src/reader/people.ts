import { gunzipSync } from 'node:zlib';
import { FILE_LIMIT } from '../core/interchange';
import { type OddRows, type Person } from '../core/people';
import { peopleOfFile } from '../core/people/from-file';
import { fail, ok, type Result } from '../core/result';

/** People that are told at once: taking them keeps the server for some milliseconds. */
const STRETCH = 2000;

/** Reads a file of people, packed by gzip, and tells them in stretches; gives how many there are and which rows are nobody. */
export async function readPeople(
  { packed }: { packed: Uint8Array },
  part: (people: Person[]) => Promise<void>,
): Promise<Result<{ people: number; odd: OddRows }>> {
  let bytes: Uint8Array;
  try {
    bytes = gunzipSync(packed, { maxOutputLength: FILE_LIMIT });
  } catch {
    return fail('What came is not packed by gzip, or is too long.');
  }
  const read = await peopleOfFile(bytes);
  if (!read.ok) return read;
  const { people, odd } = read.value;
  for (let from = 0; from < people.length; from += STRETCH) await part(people.slice(from, from + STRETCH));
  return ok({ people: people.length, odd });
}
