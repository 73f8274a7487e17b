import { decodeImage, planOfContent, recognise } from '../core/image';
import { ok, type Result } from '../core/result';
import { NEW_IDS } from './new-ids';

export type ImageRead =
  | {
      kind: 'read';
      modelId: string;
      image: Uint8Array;
      whole: boolean;
      /** What a plan holds of it. */
      lists: ReturnType<typeof planOfContent>;
    }
  | { kind: 'unknown' | 'damaged'; title: string; reason: string };

const unknown = (title: string, reason: string): Result<ImageRead> => ok({ kind: 'unknown', title, reason });

/** Reads an image, or the files of a card, as what a plan holds; what is damaged with `rescue` alone, as far as it goes. */
export async function readImage({
  files,
  rescue,
}: {
  files: readonly { name: string; bytes: Uint8Array }[];
  rescue: boolean;
}): Promise<Result<ImageRead>> {
  const known = recognise(files);
  if (!known.ok) return unknown('Not an image that Veridon knows', known.reason);
  const { model, image, faults } = known.value;
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
    lists: planOfContent(read.value, model, NEW_IDS),
  });
}
