import { listIn, type AnyDocument } from '../../core/document';
import { typeOf } from './types';

/**
 * Documents in memory: the newest revision of those that are worked on, and what they were a few revisions ago, so that an edit
 * made a moment ago, on what is not the newest any more, is compared with what it was made on without going through the log.
 * A saved revision never changes. Whether a revision is still the newest is checked when the next one is saved, see `steps.ts`.
 */
export interface Held<D extends AnyDocument = AnyDocument> {
  document: D;
  revision: number;
  undoHead: number | null;
  redoHead: number | null;
  /** How long it is as JSON. */
  bytes: number;
  /** Its records are rows; otherwise it still is one value, as plans of format 1 were kept. */
  inRows: boolean;
}

/** Bytes of JSON of newest revisions that are held: some twenty full plans of 3,600 channels. In memory they take some three times as much. */
const MOST_BYTES = 40_000_000;
/** Bytes of earlier revisions that are held beside them: they never push out what somebody works on. */
const MOST_EARLIER = 8_000_000;
/** What an earlier revision takes beside the newest: the lists of its records; the records are shared. */
const BYTES_A_RECORD = 8;
const BYTES_A_REVISION = 2_000;

interface Entry {
  newest: Held;
  /** Earlier ones, the oldest first. */
  earlier: Map<number, AnyDocument>;
}

// One for the process, however often modules are loaded again. `bytes` are those of the newest revisions.
const shared = globalThis as {
  veridonDocuments?: { entries: Map<string, Entry>; bytes: number; earlier: number };
};
const held = (shared.veridonDocuments ??= { entries: new Map(), bytes: 0, earlier: 0 });
const { entries } = held;

function sizeOf(document: AnyDocument): number {
  const { shape } = typeOf(document.id);
  const records = Object.keys(shape.kinds).reduce(
    (sum, kind) => sum + listIn(shape, document, kind).length,
    0,
  );
  return BYTES_A_REVISION + BYTES_A_RECORD * records;
}

/** Lets go of what was asked for longest ago. */
function makeRoom(but: string): void {
  for (const { earlier } of held.earlier > MOST_EARLIER ? entries.values() : [])
    for (const [revision, document] of earlier) {
      if (held.earlier <= MOST_EARLIER) break;
      earlier.delete(revision);
      held.earlier -= sizeOf(document);
    }
  for (const id of held.bytes > MOST_BYTES ? [...entries.keys()] : [])
    if (held.bytes > MOST_BYTES && id !== but) letGo(id);
}

/** Holds the newest revision of a document; the one that was the newest so far is held as an earlier one. */
export function hold(id: string, newest: Held): void {
  const before = entries.get(id);
  const follows = before !== undefined && before.newest.revision === newest.revision - 1;
  if (follows) {
    entries.delete(id);
    held.bytes -= before.newest.bytes;
    before.earlier.set(before.newest.revision, before.newest.document);
    held.earlier += sizeOf(before.newest.document);
  } else letGo(id);
  entries.set(id, { newest, earlier: follows ? before.earlier : new Map() });
  held.bytes += newest.bytes;
  makeRoom(id);
}

/** Forgets a document: somebody else has changed it, or it is needed no more. */
export function letGo(id: string): void {
  const entry = entries.get(id);
  if (!entry) return;
  held.bytes -= entry.newest.bytes;
  for (const document of entry.earlier.values()) held.earlier -= sizeOf(document);
  entries.delete(id);
}

/** The newest revision of a document as far as it is known here; the one asked for last is forgotten last. */
export function heldNewest<D extends AnyDocument>(id: string): Held<D> | undefined {
  const entry = entries.get(id);
  if (!entry) return undefined;
  entries.delete(id);
  entries.set(id, entry);
  return entry.newest as Held<D>;
}

/** The document as it was at a revision, where that is held. */
export function heldAt<D extends AnyDocument>(id: string, revision: number): D | undefined {
  const entry = entries.get(id);
  const found = entry?.newest.revision === revision ? entry.newest.document : entry?.earlier.get(revision);
  return found as D | undefined;
}

/** Holds what was found of an earlier revision, beside the newest where that is held. */
export function holdEarlier(id: string, revision: number, document: AnyDocument): void {
  const entry = entries.get(id);
  if (!entry || revision >= entry.newest.revision || entry.earlier.has(revision)) return;
  // What was gone back to through the log shares most of its records with the newest.
  entry.earlier.set(revision, document);
  held.earlier += sizeOf(document);
  makeRoom(id);
}
