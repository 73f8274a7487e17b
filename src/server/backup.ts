import { createHash, randomBytes } from 'node:crypto';
import { once } from 'node:events';
import { createWriteStream, existsSync } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { sql } from 'drizzle-orm';
import { dataPlace, schemaNumber, type Database } from '../db';
import { reading, rowsOf } from './database';
import { LEFT_OUT } from './backup-rows';
import { encrypting } from './backup-encryption';
import { codeWith, newSalt } from './backup-seal';
import { letOthers } from './in-steps';
import { inTurn } from './documents/turns';
import { keyUsed, NOBODY } from './once';

/**
 * Everything as one file: lines of JSON, compressed. The first says what it is, then each table says its name and columns and gives its rows, and the last
 * has what must come out when all is counted and summed. Passwords of directories stay here, with their key; what only a running process
 * needs is left out. docs/backup.md has the file.
 */

/** Rows that are fetched at once. */
const AT_ONCE = 500;
/** The same of what may be megabytes each: plans, and steps of plans. */
const RELATED_AT_ONCE = 20;
/** Backups by itself, and those that somebody asked for: so many of each are kept. */
export const KEPT_DEEP = 7;
/** How old the newest is when another is made by itself, ms. */
const DAILY_MS = 24 * 3600_000;

/** A backup that is kept. */
export interface KeptBackup {
  name: string;
  at: string;
  bytes: number;
  /** Made by itself, each day, or asked for. */
  by: 'itself' | 'request';
}

const folder = () => join(dataPlace(), 'backups');
const NAME =
  /^veridon-(\d{4}-\d{2}-\d{2}T\d{2}-\d{2}-\d{2})-(daily|asked)(?:-([0-9a-f]{16}))?\.backup\.(?:gz|encrypted)$/;

/** The tables of a backup: those that refer to one another, each after what it refers to, and those that stand alone. */
async function tablesOf(database: Database): Promise<{ related: string[]; alone: string[] }> {
  const all = await rowsOf<{ name: string }>(
    database,
    sql`select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`,
  );
  const refers = await rowsOf<{ from: string; to: string }>(
    database,
    sql`select conrelid::regclass::text as from, confrelid::regclass::text as to from pg_constraint where contype = 'f'`,
  );
  const wanted = all.map(({ name }) => name).filter((name) => !LEFT_OUT.includes(name));
  const isRelated = (name: string) => refers.some(({ from, to }) => from === name || to === name);
  const open = wanted.filter(isRelated);
  const related: string[] = [];
  while (related.length < open.length) {
    const next = open.find(
      (name) =>
        !related.includes(name) &&
        refers.every(({ from, to }) => from !== name || to === name || related.includes(to)),
    );
    if (next === undefined) throw new Error('Tables refer to one another in a ring.');
    related.push(next);
  }
  return { related, alone: wanted.filter((name) => !isRelated(name)) };
}

/** The columns of a table's key. */
const keyOf = async (database: Database, table: string): Promise<string[]> =>
  (
    await rowsOf<{ name: string }>(
      database,
      sql`select a.attname as name from pg_index i join pg_attribute a on a.attrelid = i.indrelid and a.attnum = any(i.indkey)
        where i.indrelid = ${table}::regclass and i.indisprimary order by array_position(i.indkey::int[], a.attnum::int)`,
    )
  ).map(({ name }) => name);

/** Rows of a table that stands alone, as JSON, in the order of its key, a stretch at a time: whoever else wants the database has it in between. */
async function* rowsAlone(database: Database, table: string): AsyncGenerator<string[]> {
  const key = await keyOf(database, table);
  const columns = sql.join(
    key.map((column) => sql.identifier(column)),
    sql`, `,
  );
  let last: Record<string, string> | undefined;
  for (;;) {
    const from = last;
    const after = from
      ? sql`where (${columns}) > (${sql.join(
          key.map((column) => sql`${from[column]}`),
          sql`, `,
        )})`
      : sql``;
    const rows = await rowsOf<{ line: string; key: Record<string, string> }>(
      database,
      sql`select to_jsonb(t)::text as line, jsonb_build_object(${sql.join(
        key.map((column) => sql`${sql.raw(`'${column}'`)}, ${sql.identifier(column)}`),
        sql`, `,
      )}) as key from ${sql.identifier(table)} t ${after} order by ${columns} limit ${AT_ONCE}`,
    );
    if (rows.length === 0) return;
    last = rows.at(-1)!.key;
    yield rows.map(({ line }) => line);
  }
}

const columnsOf = async (database: Database, table: string): Promise<string[]> =>
  (
    await rowsOf<{ name: string }>(
      database,
      sql`select column_name as name from information_schema.columns where table_schema = 'public' and table_name = ${table} order by ordinal_position`,
    )
  ).map(({ name }) => name);

/** Rows of a table, as JSON, as they are in the moment of a transaction. */
async function* rowsThen(transaction: Database, table: string): AsyncGenerator<string[]> {
  await transaction.execute(
    sql`declare backing_up no scroll cursor for select to_jsonb(t)::text as line from ${sql.identifier(table)} t`,
  );
  for (;;) {
    const rows = await rowsOf<{ line: string }>(
      transaction,
      sql.raw(`fetch ${RELATED_AT_ONCE} from backing_up`),
    );
    if (rows.length === 0) break;
    yield rows.map(({ line }) => line);
  }
  await transaction.execute(sql`close backing_up`);
}

type Write = (line: string) => Promise<void>;

/** Writes tables; gives how many rows each has. A stretch of rows at once: a line each would cost more than the row. */
async function writeTables(
  database: Database,
  tables: readonly string[],
  rowsIn: typeof rowsThen,
  write: Write,
): Promise<Record<string, number>> {
  const counts: Record<string, number> = {};
  for (const table of tables) {
    counts[table] = 0;
    await write(JSON.stringify({ table, columns: await columnsOf(database, table) }));
    for await (const rows of rowsIn(database, table)) {
      counts[table] += rows.length;
      await write(rows.map((line) => `{"row":${line}}`).join('\n'));
    }
  }
  return counts;
}

/** Characters that are written at once: a plan's log has lines of megabytes. */
const PIECE = 200_000;

/** Writes all lines: what refers to one another is of one moment, and what stands alone, stations above all, is read when nobody waits. */
async function writeAll(write: Write, head: object): Promise<Record<string, number>> {
  const database = await reading();
  const { related, alone } = await tablesOf(database);
  await write(
    JSON.stringify({
      ...{ veridon: 'backup', format: 1, schema: schemaNumber(), made: new Date().toISOString() },
      ...head,
    }),
  );
  const together = await database.transaction(
    (transaction) => writeTables(transaction, related, rowsThen, write),
    { isolationLevel: 'repeatable read', accessMode: 'read only' },
  );
  return { ...together, ...(await writeTables(database, alone, rowsAlone, write)) };
}

/**
 * Makes a backup and keeps it; whole or not at all. The oldest beyond those that are kept go. With a passphrase it can be told later that nobody has changed
 * it, and it can be encrypted. One after the other: two at once would tidy up behind each other.
 */
export const makeBackup = (by: KeptBackup['by'], sealed?: Sealed, asker = NOBODY): Promise<KeptBackup> =>
  inTurn('backup', async () => {
    const mark = asker.key === null ? undefined : markOf(asker.key);
    const before = mark === undefined ? undefined : await madeBefore(mark, sealed, asker.key!);
    return before ?? makeOne(by, sealed, mark);
  });

/**
 * What the name of a backup has of the key of the change. The name appears when the backup is whole, so a request that is repeated finds its backup even if the process was
 * killed before the answer was saved.
 */
const markOf = (key: string) => createHash('sha256').update(key).digest('hex').slice(0, 16);

/** The backup that a request made before; undefined if there is none. */
async function madeBefore(
  mark: string,
  sealed: Sealed | undefined,
  key: string,
): Promise<KeptBackup | undefined> {
  const made = (await listBackups()).find(({ name }) => NAME.exec(name)?.[3] === mark);
  if (made && made.name.endsWith('.encrypted') !== (sealed?.encrypt ?? false)) throw keyUsed(key);
  return made;
}

/** The passphrase of a backup, and whether the backup is encrypted with it too. */
export interface Sealed {
  passphrase: string;
  encrypt?: boolean | undefined;
}

/** The name of a backup of a moment, or of the first second after it of which there is none. */
function nameFor(from: Date, kind: string, ending: string): { name: string; at: Date } {
  const second = Math.floor(from.getTime() / 1000) * 1000;
  for (let at = new Date(second); ; at = new Date(at.getTime() + 1000)) {
    const name = `veridon-${at.toISOString().slice(0, 19).replaceAll(':', '-')}-${kind}.backup.${ending}`;
    if (!existsSync(join(folder(), name))) return { name, at };
  }
}

async function makeOne(
  by: KeptBackup['by'],
  sealed: Sealed | undefined,
  mark: string | undefined,
): Promise<KeptBackup> {
  const hidden = sealed?.encrypt ? await encrypting(sealed.passphrase, newSalt()) : undefined;
  const kind = by === 'itself' ? 'daily' : 'asked';
  const { name, at } = nameFor(
    new Date(),
    mark === undefined ? kind : `${kind}-${mark}`,
    hidden ? 'encrypted' : 'gz',
  );
  const salt = sealed && newSalt();
  const code = sealed && (await codeWith(sealed.passphrase, salt!));
  await mkdir(folder(), { recursive: true });
  // Two may be made at once: each has a name of its own until it is whole.
  const making = join(folder(), `${name}.${randomBytes(4).toString('hex')}.making`);
  const packed = createGzip({ level: 3 });
  const onDisk = createWriteStream(making, { flush: true });
  const kept = hidden ? pipeline(packed, hidden, onDisk) : pipeline(packed, onDisk);
  // What goes wrong on the disk is met where it is written; until then nobody has to hear of it.
  kept.catch(() => {});
  try {
    const sum = createHash('sha256');
    const put = async (text: string) => {
      if (!packed.write(text)) await Promise.race([once(packed, 'drain'), kept]);
      // A full gzip waits by itself; one that keeps up would have the thread to itself.
      else await letOthers();
    };
    const counts = await writeAll(
      async (line) => {
        code?.update(line);
        for (let from = 0; from < line.length; from += PIECE) {
          const piece = line.slice(from, from + PIECE);
          sum.update(piece);
          await put(piece);
        }
        sum.update('\n');
        await put('\n');
      },
      { salt },
    );
    await put(`${JSON.stringify({ end: counts, sha256: sum.digest('hex'), code: code?.hex() })}\n`);
    packed.end();
    await kept;
    await rename(making, join(folder(), name));
  } catch (error) {
    packed.destroy();
    await rm(making, { force: true });
    throw error;
  }
  await prune();
  const { size } = await stat(join(folder(), name));
  return { name, at: at.toISOString(), bytes: size, by };
}

/** The backups that are kept, newest first. */
export async function listBackups(): Promise<KeptBackup[]> {
  const names = await readdir(folder()).catch(() => [] as string[]);
  const found = await Promise.all(
    names.map(async (name): Promise<KeptBackup[]> => {
      const [, at, kind] = NAME.exec(name) ?? [];
      if (at === undefined) return [];
      // It may have gone in the meantime, for a newer one.
      const found = await stat(join(folder(), name)).catch(() => undefined);
      if (!found) return [];
      const { size } = found;
      const moment = `${at.slice(0, 10)}T${at.slice(11).replaceAll('-', ':')}.000Z`;
      return [{ name, at: moment, bytes: size, by: kind === 'daily' ? 'itself' : 'request' }];
    }),
  );
  return found.flat().sort((a, b) => (a.at < b.at ? 1 : -1));
}

async function prune(): Promise<void> {
  const kept = await listBackups();
  for (const by of ['itself', 'request'] as const)
    for (const { name } of kept.filter((one) => one.by === by).slice(KEPT_DEEP))
      await rm(join(folder(), name), { force: true });
}

/** Where a kept backup lies; undefined where there is none of that name. */
export async function backupFile(name: string): Promise<string | undefined> {
  return (await listBackups()).some((one) => one.name === name) ? join(folder(), name) : undefined;
}

/** Makes the daily backup where the newest is a day old. */
export async function backUpDaily(now = Date.now()): Promise<KeptBackup | null> {
  const newest = (await listBackups()).find(({ by }) => by === 'itself');
  return newest && now - Date.parse(newest.at) < DAILY_MS ? null : makeBackup('itself');
}
