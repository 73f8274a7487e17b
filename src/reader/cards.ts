import { cardOfZip, readCard, type CardRead } from '../core/link';
import { ok, type Result } from '../core/result';

/** Reads what is on a card of which the files came in a zip archive. */
export async function readCardZip({ bytes }: { bytes: Uint8Array }): Promise<Result<CardRead>> {
  const unpacked = cardOfZip(bytes);
  return unpacked.ok ? ok(readCard(unpacked.value)) : unpacked;
}
