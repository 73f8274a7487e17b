import { mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { basename, dirname, join, relative } from 'node:path';
import type { DiskStep } from '../src/db';

/**
 * A disk as a power cut finds it. What was synced is there; of what was not, a random part: any of the sectors that were
 * written, any beginning of what was done to a folder (file systems keep that order), sizes as they happen to stand.
 */

const SECTOR = 512;

type Change = { at: number; bytes: Uint8Array } | { size: number };
interface File {
  safe: Uint8Array;
  unsafe: Change[];
}
/** A name in a folder that now stands for a file or folder, or for nothing. */
interface NameChange {
  name: string;
  now: Entry | null;
}
interface Folder {
  safe: Map<string, Entry>;
  unsafe: NameChange[];
}
type Entry = File | Folder;
const isFolder = (entry: Entry): entry is Folder => entry.safe instanceof Map;

/** The bytes after a change: the same array where it has room, else a longer one. */
function apply(bytes: Uint8Array, change: Change): Uint8Array {
  const size = 'size' in change ? change.size : Math.max(bytes.length, change.at + change.bytes.length);
  const to = size === bytes.length ? bytes : new Uint8Array(size);
  if (to !== bytes) to.set(bytes.subarray(0, size));
  if ('bytes' in change) to.set(change.bytes, change.at);
  return to;
}

/** The files of a database as a disk knows them, step by step. */
export class Disk {
  private readonly root: Folder;

  /** `base` is the folder that the steps speak of, `before` a copy of it as it was before the first of them. */
  constructor(
    private readonly base: string,
    before: string,
  ) {
    const read = (path: string): Entry => {
      if (!statSync(path).isDirectory()) return { safe: readFileSync(path), unsafe: [] };
      const names = readdirSync(path).map((name) => [name, read(join(path, name))] as const);
      return { safe: new Map(names), unsafe: [] };
    };
    this.root = read(before) as Folder;
  }

  private folder(path: string): Folder {
    const inside = relative(this.base, path);
    const entry = inside === '' ? this.root : this.now(this.folder(dirname(path)), basename(path));
    if (!entry || !isFolder(entry)) throw new Error(`There is no folder ${path}`);
    return entry;
  }

  private now(folder: Folder, name: string): Entry | null {
    const last = folder.unsafe.findLast((change) => change.name === name);
    return last ? last.now : (folder.safe.get(name) ?? null);
  }

  private name(path: string, now: Entry | null): void {
    this.folder(dirname(path)).unsafe.push({ name: basename(path), now });
  }

  take(step: DiskStep): void {
    if (step.kind === 'make')
      return this.name(
        step.path,
        step.folder ? { safe: new Map(), unsafe: [] } : { safe: new Uint8Array(), unsafe: [] },
      );
    if (step.kind === 'remove') return this.name(step.path, null);
    if (step.kind === 'rename') {
      const moved = this.now(this.folder(dirname(step.from)), basename(step.from));
      this.name(step.from, null);
      return this.name(step.to, moved);
    }
    const entry =
      step.path === this.base ? this.root : this.now(this.folder(dirname(step.path)), basename(step.path));
    // Written to after it was removed: nobody will ever see that.
    if (!entry) return;
    if (isFolder(entry)) {
      if (step.kind !== 'sync') throw new Error(`${step.path} is a folder`);
      for (const { name, now } of entry.unsafe.splice(0))
        if (now) entry.safe.set(name, now);
        else entry.safe.delete(name);
    } else if (step.kind === 'sync') entry.safe = entry.unsafe.splice(0).reduce(apply, entry.safe);
    else if (step.kind === 'size') entry.unsafe.push({ size: step.size });
    else entry.unsafe.push({ at: step.at, bytes: step.bytes });
  }

  /** Lays down what a cut at this moment leaves; `random` gives 0 up to below 1. */
  cut(to: string, random: () => number): void {
    rmSync(to, { recursive: true, force: true });
    const lay = (entry: Entry, path: string): void => {
      if (!isFolder(entry)) return writeFileSync(path, surviving(entry, random));
      mkdirSync(path);
      const names = new Map(entry.safe);
      const survive = Math.floor(random() * (entry.unsafe.length + 1));
      for (const { name, now } of entry.unsafe.slice(0, survive))
        if (now) names.set(name, now);
        else names.delete(name);
      for (const [name, inside] of names) lay(inside, join(path, name));
    };
    lay(this.root, to);
  }
}

/** A file after the cut. Sometimes nothing of what was not synced is there, sometimes all, mostly some of its sectors. */
function surviving({ safe, unsafe }: File, random: () => number): Uint8Array {
  const luck = random();
  const share = luck < 0.2 ? 0 : luck < 0.3 ? 1 : random();
  let bytes: Uint8Array = safe.slice();
  for (const change of unsafe) {
    if ('size' in change) {
      if (random() < share) bytes = apply(bytes, change);
      continue;
    }
    for (let from = 0; from < change.bytes.length;) {
      const end = Math.min(change.bytes.length, from + SECTOR - ((change.at + from) % SECTOR));
      if (random() < share)
        bytes = apply(bytes, { at: change.at + from, bytes: change.bytes.subarray(from, end) });
      from = end;
    }
  }
  return bytes;
}
