import { unzipSync, zipSync } from 'fflate';
import { fail, ok, type Result } from '../result';
import { CARD_LIMITS, MANIFEST, type CardFiles } from './card';

/** A card as one file: its files in a zip archive, for a card that is in another machine’s reader. */

/** What files of an archive are dated, so that the same card is the same file: in the first year that an archive can say. */
const MADE = '1980-06-01';

/** The files of a card as one archive; of a file that is there twice, the last, as it would be on the card. */
export function zipOfCard(files: readonly { name: string; bytes: Uint8Array }[]): Uint8Array {
  return zipSync(Object.fromEntries(files.map(({ name, bytes }) => [name, bytes])), { mtime: MADE });
}

/**
 * The files of a card in an archive, by their names; they may lie together in a folder. Whatever else is in it is not unpacked. Fails where
 * it is no archive, where no card is in it, or more than one.
 */
export function cardOfZip(bytes: Uint8Array): Result<CardFiles> {
  const folders: string[] = [];
  let found: Record<string, Uint8Array>;
  try {
    // First where the card is, then what is there: nothing else is unpacked, whatever the archive says of itself.
    unzipSync(bytes, {
      filter: ({ name }) => {
        const [, folder = '', last] = /^(.*\/)?([^/]+)$/.exec(name) ?? [];
        if (last?.toUpperCase() === MANIFEST) folders.push(folder);
        return false;
      },
    });
    const [folder = ''] = folders;
    let count = 0;
    found = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        const own = name.startsWith(folder) ? name.slice(folder.length) : '';
        const isOfCard =
          /^[A-Za-z0-9]{1,8}\.[A-Za-z0-9]{1,3}$/.test(own) && originalSize <= CARD_LIMITS.bytes;
        return isOfCard && folders.length === 1 && ++count <= CARD_LIMITS.files;
      },
    });
  } catch {
    return fail('This is no zip archive, or it is damaged or cut off. Copy it again.');
  }
  if (folders.length > 1) return fail('There is more than one card in this zip. Pack one card alone.');
  if (folders.length === 0)
    return fail(
      `There is no card in this zip: it has no ${MANIFEST}. Save to the card in the radio first, then pack all of its files.`,
    );
  const [folder = ''] = folders;
  return ok(
    new Map(Object.entries(found).map(([name, file]) => [name.slice(folder.length).toUpperCase(), file])),
  );
}
