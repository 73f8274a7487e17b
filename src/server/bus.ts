import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { listenOn, openDatabase } from '../db';
import { instanceId } from './instance';

/**
 * What the instances that share a PostgreSQL server announce to each other, by NOTIFY. With the embedded database there is one instance, and nothing is announced. An announcement can be lost when
 * a connection breaks, so it only says where to look: the truth is in the tables.
 */

export const CHANNEL = 'veridon';

const announcementSchema = z.discriminatedUnion('topic', [
  /** A document has a new revision. Sent by the statement that saves it, and so only if that is committed (`documents/steps.ts`). */
  z.object({ topic: z.literal('document'), from: z.string(), id: z.string(), revision: z.int() }),
  /** The instance that carries out this job is to stop it. */
  z.object({ topic: z.literal('stop job'), from: z.string(), id: z.string() }),
]);
type Announcement = z.infer<typeof announcementSchema>;
type Topic = Announcement['topic'];
type Of<T extends Topic> = Extract<Announcement, { topic: T }>;

interface Listeners {
  heard: Map<Topic, (announcement: never) => void>;
  joined: Set<() => void>;
}
const listeners: Listeners = { heard: new Map(), joined: new Set() };

/** Calls `heard` with each announcement of the other instances on a topic; one listener a topic. */
export function onAnnouncement<T extends Topic>(topic: T, heard: (announcement: Of<T>) => void): void {
  listeners.heard.set(topic, heard as (announcement: never) => void);
}

/** Calls `look` whenever announcements may have been missed. */
export const onJoined = (look: () => void): void => void listeners.joined.add(look);

/** Announces to the other instances. Throws where the database does not answer. */
export async function publish(announcement: Omit<Of<'stop job'>, 'from'>): Promise<void> {
  const { database, kind } = await openDatabase();
  if (kind !== 'server') return;
  await database.execute(
    sql`select pg_notify(${CHANNEL}, ${JSON.stringify({ ...announcement, from: instanceId })})`,
  );
}

/** Hands an announcement to its listener. Other programs may write into the channel, or another version of Veridon: what is not understood is ignored. */
export function hearAnnouncement(payload: string): void {
  let json: unknown;
  try {
    json = JSON.parse(payload);
  } catch {
    return;
  }
  const read = announcementSchema.safeParse(json);
  if (!read.success || read.data.from === instanceId) return;
  listeners.heard.get(read.data.topic)?.(read.data as never);
}

/** Begins to listen, where a server keeps the data. */
export function joinBus(): void {
  const url = process.env.DATABASE_URL;
  if (!url) return;
  listenOn(url, CHANNEL, {
    heard: hearAnnouncement,
    joined: () => {
      for (const look of listeners.joined) look();
    },
  });
}
