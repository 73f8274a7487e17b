import { lstat, open, readdir, readFile, rename } from 'node:fs/promises';
import { join } from 'node:path';
import {
  CARD_LIMITS,
  cardFiles,
  LOADED,
  MANIFEST,
  namesOnCard,
  readCard,
  type CardFiles,
  type LinkEvent,
  type LinkTask,
} from '../core/link';
import type { Model } from '../core/models';
import type { LinkOutcome } from './transport';

/** Cards in the reader of this machine: each a folder, in which a radio's files lie. */

/** A card by the name of its folder, as the bench says it; nothing but letters, figures and hyphens, so that no way leads out of the reader. */
export interface Card {
  card: string;
}
export const CARD_NAME = /^[a-z0-9-]{1,40}$/;

/** Bytes that are written at once; then one looks whether to go on. */
const STRETCH = 4096;

/** Pauses after each stretch, as a slow card would; for journeys that take a card out in the middle of a write. */
const pauseMs = () => Number(process.env.VERIDON_CARD_PAUSE_MS ?? 0);
let afterStretch: () => unknown = () =>
  pauseMs() > 0 ? new Promise((resolve) => setTimeout(resolve, pauseMs())) : undefined;
/** For tests: what is done after each stretch that is written, before the next one. */
export function whenStretchWritten(look: () => unknown): void {
  afterStretch = look;
}

const folderOf = ({ card }: Card): string =>
  join(/* turbopackIgnore: true */ process.env.VERIDON_BENCH_DIR ?? '.data/bench', 'reader', card);

/** The files of a radio on a card; what else is there, however much, is not looked at. */
export async function filesOnCard(folder: string): Promise<CardFiles> {
  const files = new Map<string, Uint8Array>();
  const there = new Set(await readdir(folder));
  const take = async (name: string) => {
    if (!there.has(name)) return;
    // Of a link one does not know where it leads.
    const file = await lstat(join(folder, name));
    if (file.isFile() && file.size <= CARD_LIMITS.bytes)
      files.set(name, new Uint8Array(await readFile(join(folder, name))));
  };
  await take(MANIFEST);
  for (const name of namesOnCard(files.get(MANIFEST))) await take(name);
  return files;
}

/** Writes a file beside the one that it takes the place of, stretch by stretch, and puts it there once it is on the card. */
async function writeFile(
  folder: string,
  { name, bytes }: { name: string; bytes: Uint8Array },
  wrote: (bytes: number) => void,
  signal?: AbortSignal,
): Promise<void> {
  const beside = join(folder, `${name}.NEW`);
  const file = await open(beside, 'w');
  try {
    for (let at = 0; at < bytes.length; at += STRETCH) {
      signal?.throwIfAborted();
      const stretch = bytes.subarray(at, at + STRETCH);
      await file.writeFile(stretch);
      await afterStretch();
      wrote(stretch.length);
    }
    await file.sync();
  } finally {
    await file.close();
  }
  await rename(beside, join(folder, name));
}

/** What a fault of the file system means for somebody with a card in the hand. */
function reasonOf(error: unknown): string {
  const { code, name } = error as { code?: string; name?: string };
  if (name === 'AbortError') return 'Stopped.';
  if (code === 'ENOENT' || code === 'ENOTDIR') return 'The card was taken out of the reader.';
  if (code === 'ENOSPC') return 'The card is full: take files off it that are not the radio’s.';
  if (code === 'EACCES' || code === 'EPERM' || code === 'EROFS')
    return 'The card cannot be written: push the slider on its side away from “lock”.';
  if (code === 'EIO') return 'The card gives errors: it is worn out, or dirty. Try another.';
  throw error;
}

/** Carries a task out on a card, with the outcomes of a link. `signal` stops it as if the card were taken out. */
export async function runCard(
  card: Card,
  model: Model | null,
  task: LinkTask,
  onEvent: (event: LinkEvent) => void = () => {},
  signal?: AbortSignal,
): Promise<LinkOutcome> {
  const folder = folderOf(card);
  let begun = false;
  const failed = (reason: string): LinkOutcome => ({
    kind: 'failed',
    reason,
    radio: begun ? 'half written' : 'untouched',
  });
  try {
    const read = readCard(await filesOnCard(folder));
    if (read.kind === 'none') return failed(read.reason);
    if (model && read.ident.model !== model.link?.ident)
      return failed(
        `The card is of another radio: it calls itself ${read.ident.model.trim()}, a ${model.name} was wanted.`,
      );
    if (task.kind === 'identify') return { kind: 'finished', ident: read.ident, image: null };
    if (task.kind === 'read') {
      if (read.kind === 'half') return { kind: 'finished', ident: read.ident, image: null };
      onEvent({ kind: 'progress', bytes: read.image.length, of: read.image.length });
      return { kind: 'finished', ident: read.ident, image: read.image };
    }
    if (task.kind === 'people') throw new Error('No card has a memory for people');
    if (read.ident.serial !== task.serial)
      return failed('The card is of another unit: somebody has put another one in.');
    let bytes = 0;
    for (const file of cardFiles(task.image, read.ident, model!, 'COMPUTER')) {
      await writeFile(
        folder,
        file,
        (wrote) => {
          if (file.name === MANIFEST) return;
          bytes += wrote;
          onEvent({ kind: 'progress', bytes, of: task.image.length });
        },
        signal,
      );
      begun = true;
    }
    return { kind: 'finished', ident: { ...read.ident, halfWritten: false }, image: null };
  } catch (error) {
    return failed(reasonOf(error));
  }
}

/** Tells a card as it is now from what it was: it may have been in the radio meanwhile, or somebody has copied files to it. */
export async function stampOf(card: Card): Promise<string> {
  const when = (name: string) =>
    lstat(join(folderOf(card), name)).then(
      ({ mtimeMs, size }) => `${mtimeMs} ${size}`,
      () => 'none',
    );
  return (await Promise.all([MANIFEST, LOADED].map(when))).join();
}

/** Whether the radio has loaded what Veridon put on a card; null where the card is the radio's own, or none. */
export async function isLoaded(card: Card): Promise<boolean | null> {
  try {
    const read = readCard(await filesOnCard(folderOf(card)));
    return read.kind === 'whole' && read.by === 'COMPUTER' ? read.loaded : null;
  } catch {
    return null;
  }
}
