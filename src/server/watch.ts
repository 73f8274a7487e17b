import { inArray } from 'drizzle-orm';
import type { LiveTold } from '../core/bench';
import type { RadioId } from '../core/plan';
import { documents } from '../db';
import { onAnnouncement, onJoined } from './bus';
import { reading } from './database';
import { labelOf } from './documents/log';
import { eventStream } from './event-stream';
import { wantRow } from './plan-rows';
import { Problem } from './problem';

/** What those are told who look at a document: the newest revision, and what was done last in words where it was done while they looked; the radios that follow it, where some do. */
export interface Told {
  revision: number;
  label: string | null;
  lives?: LiveTold[];
}

type Listener = (told: Told) => void;

// One for the process, however often modules are loaded again.
const shared = globalThis as {
  veridonWatchers?: Map<string, Set<Listener>>;
  veridonFollowed?: Map<string, Map<RadioId, LiveTold>>;
};
const watchers = (shared.veridonWatchers ??= new Map<string, Set<Listener>>());
const followed = (shared.veridonFollowed ??= new Map<string, Map<RadioId, LiveTold>>());

/** Tells all who look at a document of a revision that was kept. */
export function announce(id: string, told: Told): void {
  for (const listener of watchers.get(id) ?? []) listener(told);
}

/** Tells those who look at these documents of their newest revisions, which another instance saved. */
async function lookAgain(ids: readonly string[]): Promise<void> {
  const watched = ids.filter((id) => watchers.has(id));
  if (watched.length === 0) return;
  const database = await reading();
  const rows = await database
    .select({ id: documents.id, revision: documents.revision })
    .from(documents)
    .where(inArray(documents.id, watched));
  for (const { id, revision } of rows)
    announce(id, { revision, label: await labelOf(database, id, revision) });
}

/** Where the database is away now, the connection of the bus breaks too, and all is looked at when it is back. */
const lookAgainAt = (ids: readonly string[]) => void lookAgain(ids).catch(() => {});
onAnnouncement('document', ({ id }) => lookAgainAt([id]));
onJoined(() => lookAgainAt([...watchers.keys()]));

/** Tells them how a radio stands that follows the plan; `null` where it does not any more. */
export function announceLive(id: string, radioId: RadioId, live: Omit<LiveTold, 'radioId'> | null): void {
  const own = followed.get(id) ?? new Map<RadioId, LiveTold>();
  if (live) followed.set(id, own.set(radioId, { radioId, ...live }));
  else own.delete(radioId);
  if (own.size === 0) followed.delete(id);
  // No news of the plan: whoever is told of both at once must not lose its newest revision.
  announce(id, { revision: 0, label: null });
}

/** Hears of each revision of a document that is kept, until what it gives is called. */
export function onRevision(id: string, listener: Listener): () => void {
  const own = watchers.get(id) ?? new Set();
  watchers.set(id, own.add(listener));
  return () => {
    own.delete(listener);
    if (own.size === 0) watchers.delete(id);
  };
}

/** Most who look at once: each holds a connection. */
const MOST = 200;

/**
 * What happens to a document from now on, as an event stream: its newest revision at once, then each that is kept; of several at once the
 * last. Ends when whoever asked has gone.
 */
export async function watchPlan(id: string, gone: AbortSignal): Promise<AsyncIterable<string>> {
  const { revision } = await wantRow(await reading(), id);
  const all = [...watchers.values()].reduce((n, own) => n + own.size, 0);
  if (all >= MOST)
    throw new Problem(
      429,
      'too-many',
      'Too many look on',
      `${MOST} pages look at plans already. Close some of them; this one shows what is new when it is looked at again.`,
    );
  let newest = revision;
  const withLive = (told: Told): Told => {
    newest = Math.max(newest, told.revision);
    const own = followed.get(id);
    return { ...told, revision: newest, ...(own && { lives: [...own.values()] }) };
  };
  return eventStream(
    (hear) => onRevision(id, (told) => hear(withLive(told))),
    withLive({ revision, label: null }),
    gone,
  );
}
