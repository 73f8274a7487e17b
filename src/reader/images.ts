import { decodeImage, planOfContent, recognise, type HandedIn } from '../core/image';
import { MANIFEST, readCard, type CardRead } from '../core/link';
import { formatOf } from '../core/models/formats';
import { ok, type Result } from '../core/result';
import { NEW_IDS } from './new-ids';

export type ImageRead =
  | {
      kind: 'read';
      modelId: string;
      image: Uint8Array;
      whole: boolean;
      /** False where nothing in the files tells whether they are as the radio wrote them. */
      proven: boolean;
      /** What a plan holds of it. */
      lists: ReturnType<typeof planOfContent>;
    }
  | { kind: 'unknown' | 'damaged'; title: string; reason: string };

const unknown = (title: string, reason: string): Result<ImageRead> => ok({ kind: 'unknown', title, reason });

/** What the card's own list says of its files, where that was handed in too; undefined where not. */
function onCard(files: readonly HandedIn[]): CardRead | undefined {
  const named = new Map(
    files.map(({ name, bytes }) => [name.replace(/^.*[\\/]/, '').toUpperCase(), bytes] as const),
  );
  return named.has(MANIFEST) ? readCard(named) : undefined;
}

/** Reads an image, or the files of a card, as what a plan holds; what is damaged with `rescue` alone, as far as it goes. */
export async function readImage({
  files,
  rescue,
}: {
  files: readonly HandedIn[];
  rescue: boolean;
}): Promise<Result<ImageRead>> {
  const known = recognise(files);
  if (!known.ok) return unknown('Not an image that Veridon knows', known.reason);
  const { model, image } = known.value;
  const card = onCard(files);
  const faults = card?.kind === 'half' ? [...known.value.faults, card.reason] : known.value.faults;
  const read = decodeImage(image, model, { damaged: faults.length > 0 });
  if (!read.ok) return unknown('This image cannot be read', read.reason);
  const { channels } = read.value;
  if (faults.length > 0 && channels.length === 0)
    return unknown('This image is not whole', `${faults.join(' ')} No channel can be read of it.`);
  if (faults.length > 0 && !rescue)
    return ok({
      kind: 'damaged',
      title: 'This image is not whole',
      reason: `${faults.join(' ')} ${channels.length} channels can be read of it all the same; what they say may be wrong.`,
    });
  return ok({
    kind: 'read',
    modelId: model.id,
    image,
    whole: faults.length === 0,
    proven: formatOf(model).checksums.length > 0 || card?.kind === 'whole',
    lists: planOfContent(read.value, model, NEW_IDS),
  });
}
