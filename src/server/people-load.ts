import { and, eq, gt, inArray, isNull, lte, max, ne, notInArray, or, sql } from 'drizzle-orm';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { FILE_LIMIT } from '../core/interchange/decode';
import { NEWS_TOLD, rollReader, type Load, type Person, type RollNews } from '../core/people';
import { copyLine, people, rolls, openDatabase, type Database } from '../db';
import { reading, rowsOf, writing } from './database';
import { bytesOf, LoadFailed } from './fetch-bytes';
import { instanceId, living } from './instance';
import { forgetPeopleText, peopleText } from './people-text';
import { Problem } from './problem';
import { runReader } from './reader';

/**
 * Loading a roll of people: as it comes, in stretches that let others have the database in between. It counts only once it is whole; what
 * breaks off leaves nothing.
 */

/** The roll that Veridon knows the way to. */
const ROLL = { source: 'Ident Roll', path: '/roll/people.json' };
/** People that are kept at once. */
const STRETCH = 4000;
/** Numbers that are held against each other, or forgotten, at once. */
const SPAN = 40_000;
/** Longest roll that is read, bytes. */
const LONGEST = 400_000_000;

const unzip = promisify(gunzip) as (bytes: Buffer, options: { maxOutputLength: number }) => Promise<Buffer>;

interface Loading {
  load: Load;
  stop: AbortController;
  ended: Promise<void>;
}
// One for the process, however often modules are loaded again.
const kept = globalThis as { veridonPeopleLoad?: Loading };

/** The roll that is being loaded, or what came of the last; null where this process has loaded none. */
export const lastLoad = (): Load | null => kept.veridonPeopleLoad?.load ?? null;

/** A file that somebody has as their roll. */
export interface RollFile {
  name: string;
  /** As gzip packed it. */
  packed: Uint8Array;
  /** Its length unpacked, bytes. */
  length: number;
}

/** A file as the browser sends it: packed by gzip, as base64. Refuses what is no such thing, and what unpacks to too much. */
export async function packedFile(name: string, base64: string): Promise<RollFile> {
  try {
    const packed = Buffer.from(base64, 'base64');
    // Unpacked beside this thread, only to know that it can be.
    const { length } = await unzip(packed, { maxOutputLength: FILE_LIMIT });
    return { name, packed, length };
  } catch (error) {
    const large = (error as NodeJS.ErrnoException).code === 'ERR_BUFFER_TOO_LARGE';
    throw new Problem(
      large ? 413 : 422,
      large ? 'too-large' : 'unreadable',
      'This file cannot be taken',
      large
        ? `It is longer than ${FILE_LIMIT / 1e6} MB: split it, or make a CSV of it.`
        : 'What came is not packed by gzip: it was damaged on the way.',
    );
  }
}

/** Begins to load the Ident Roll, or a file in its place, and answers at once. */
export async function startLoad(file?: RollFile): Promise<Load> {
  await writing();
  if (kept.veridonPeopleLoad?.load.state === 'loading')
    throw new Problem(
      409,
      'people-busy',
      'A roll is being loaded',
      'A roll is being loaded already. Stop that first, or wait for it.',
    );
  const message = file ? `Reading ${file.name}.` : `Asking the ${ROLL.source}.`;
  const load: Load = { state: 'loading', message, people: 0, bytes: 0 };
  const stop = new AbortController();
  kept.veridonPeopleLoad = { load, stop, ended: run(load, stop.signal, file) };
  return { ...load };
}

/** Stops what is being loaded; the roll in use stays. */
export async function stopLoad(): Promise<Load | null> {
  const running = kept.veridonPeopleLoad;
  if (running?.load.state === 'loading') {
    running.stop.abort();
    await running.ended;
  }
  return lastLoad();
}

/** Resolves when nothing is being loaded any more. */
export const loadEnded = (): Promise<void> => kept.veridonPeopleLoad?.ended ?? Promise.resolve();

async function run(load: Load, signal: AbortSignal, file?: RollFile): Promise<void> {
  let roll: number | undefined;
  try {
    const database = await writing();
    const [row] = await database
      .insert(rolls)
      .values({
        // No sequence: a backup that is restored brings its numbers along.
        id: sql`(select coalesce(max(id), 0) + 1 from rolls)`,
        ...{ source: file?.name ?? ROLL.source, state: 'loading', instance: instanceId },
      })
      .returning({ id: rolls.id });
    roll = row!.id;
    const {
      made,
      people: count,
      odd,
    } = file ? await fillOfFile(roll, file, load, signal) : await fill(roll, load, signal);
    load.message = 'Holding it against the roll before.';
    // So many new rows are read by their numbers only where the database knows how many they are.
    await database.execute(sql`analyze people (roll, id)`);
    const news = await newsOf(database, roll);
    signal.throwIfAborted();
    await database.transaction(async (transaction) => {
      await transaction.update(rolls).set({ state: 'old' }).where(eq(rolls.state, 'in use'));
      await transaction
        .update(rolls)
        .set({ state: 'in use', made, people: count, odd, news, at: new Date(), instance: null })
        .where(eq(rolls.id, roll!));
    });
    forgetPeopleText();
    // Whoever looks for somebody next finds it made.
    void peopleText().catch(() => {});
    load.state = 'done';
    load.message = saying(count, odd.count, news);
  } catch (error) {
    const stopped = signal.aborted;
    load.state = stopped ? 'stopped' : 'failed';
    if (!stopped && !(error instanceof LoadFailed) && !(error instanceof Problem)) console.error(error);
    load.message = stopped
      ? 'Stopped. The people that you had are as they were.'
      : `${error instanceof LoadFailed ? error.message : error instanceof Problem ? error.detail : 'Veridon made a mistake here.'} The people that you had are as they were.`;
  }
  // Of a disk that is full or a database that is away the next start tidies up.
  await forgetRolls().catch(() => {});
}

const grouped = (n: number) => n.toLocaleString('en');

function saying(count: number, odd: number, news: RollNews | null): string {
  const left = odd === 0 ? '' : odd === 1 ? ' One row was odd.' : ` ${grouped(odd)} rows were odd.`;
  const others = news
    ? ` ${grouped(news.added)} added, ${grouped(news.changed)} changed, ${grouped(news.gone)} gone.`
    : '';
  return `${grouped(count)} people are loaded.${others}${left}`;
}

/** Keeps the people of a file, stretch by stretch. */
async function fillOfFile(roll: number, { packed, length }: RollFile, load: Load, signal: AbortSignal) {
  load.bytes = length;
  const read = await runReader(
    'people',
    { packed },
    {
      lane: 'people',
      gone: signal,
      async part(some) {
        signal.throwIfAborted();
        await writing();
        await (
          await ready(roll, some)
        )();
        load.people += some.length;
        load.message = `${grouped(load.people)} people so far.`;
      },
    },
  );
  if (!read.ok) throw new LoadFailed(read.reason);
  return { made: '', ...read.value };
}

/** Fetches the roll and keeps its people, stretch by stretch. */
async function fill(roll: number, load: Load, signal: AbortSignal) {
  const reader = rollReader();
  let waiting: Person[] = [];
  const keep = async (put: () => Promise<void>, count: number) => {
    signal.throwIfAborted();
    await writing();
    await put();
    load.people += count;
    load.message = `${grouped(load.people)} people so far.`;
  };
  /** What is being kept while the next is read: the database works in a thread of its own. */
  let keeping: Promise<void> = Promise.resolve();
  try {
    for await (const bytes of bytesOf(ROLL, signal)) {
      load.bytes += bytes.length;
      if (load.bytes > LONGEST)
        throw new LoadFailed(`It is longer than ${LONGEST / 1e6} MB, which no Ident Roll is.`);
      const taken = reader.take(bytes);
      if (!taken.ok) throw new LoadFailed(taken.reason);
      waiting.push(...taken.value);
      if (waiting.length < STRETCH) continue;
      // Written out before it is waited for: the database has something to do meanwhile.
      const put = await ready(roll, waiting);
      await keeping;
      keeping = keep(put, waiting.length);
      keeping.catch(() => {});
      waiting = [];
    }
  } finally {
    // Whatever comes of the rest: nothing of it is kept behind anybody's back.
    await keeping.catch(() => {});
  }
  await keeping;
  const end = reader.end();
  if (!end.ok) throw new LoadFailed(end.reason);
  if (waiting.length > 0) await keep(await ready(roll, waiting), waiting.length);
  return end.value;
}

/** People as lines of what is copied. */
const linesOf = (roll: number, some: readonly Person[]): string =>
  some
    .map(({ id, call, first, last, town, area }) => copyLine([roll, id, call, first, last, town, area]))
    .join('');

/** What the database answers where a roll is not ours to load any more; of a class that PostgreSQL leaves to others. */
const NOT_OURS = 'VR001';

/**
 * Makes people ready for the database, and gives what puts them into a roll, as long as this process loads it: that is seen to once for
 * all of them.
 */
async function ready(roll: number, some: readonly Person[]): Promise<() => Promise<void>> {
  const { copy, database } = await openDatabase();
  const own = `select 1 from rolls where id = ${roll} and state = 'loading' and instance = '${instanceId}' for key share`;
  if (copy) {
    const lines = linesOf(roll, some);
    return () =>
      copy(
        // It counts only once all of it is there, and that is written down with everything before it.
        `set local synchronous_commit = off;
         do $own$ begin perform 1 from (${own}) as own; if not found then raise exception 'not ours' using errcode = '${NOT_OURS}'; end if; end $own$;
         copy people (roll, id, call, first, last, town, area) from stdin`,
        lines,
      ).catch((error: unknown) => {
        throw (error as { code?: string }).code === NOT_OURS ? new LoadFailed(TAKEN_FOR_DEAD) : error;
      });
  }
  const column = <V>(of: (person: Person) => V) => sql.param(some.map(of));
  return async () => {
    const { rowCount } = (await database.execute(
      sql`insert into people (roll, id, call, first, last, town, area)
          select ${roll}, said.* from (${sql.raw(own)}) as own, unnest(
            ${column(({ id }) => id)}::int[], ${column(({ call }) => call)}::text[], ${column(({ first }) => first)}::text[],
            ${column(({ last }) => last)}::text[], ${column(({ town }) => town)}::text[], ${column(({ area }) => area)}::text[]) as said`,
    )) as unknown as { rowCount: number };
    if (rowCount === 0) throw new LoadFailed(TAKEN_FOR_DEAD);
  };
}
const TAKEN_FOR_DEAD = 'Another Veridon on this database took this one for dead and forgot what it loaded.';

/** What a roll has otherwise than the one in use; null where there is none. */
async function newsOf(database: Database, roll: number): Promise<RollNews | null> {
  const [before] = await database.select({ id: rolls.id }).from(rolls).where(eq(rolls.state, 'in use'));
  if (!before) return null;
  const news: RollNews = { added: 0, changed: 0, gone: 0, first: [] };
  const [{ last } = { last: 0 }] = await database
    .select({ last: max(people.id) })
    .from(people)
    .where(inArray(people.roll, [before.id, roll]));
  const told = { added: 0, changed: 0, gone: 0 };
  for (let from = 0; from <= (last ?? 0); from += SPAN) {
    const rows = await rowsOf<{ id: number; is: string | null; was: string | null }>(
      database,
      sql`select coalesce(a.id, b.id) as id, a.said as is, b.said as was from
            (select id, concat_ws(', ', call, trim(first || ' ' || last), town, area) as said from people where roll = ${roll} and id >= ${from} and id < ${from + SPAN}) a
            full join
            (select id, concat_ws(', ', call, trim(first || ' ' || last), town, area) as said from people where roll = ${before.id} and id >= ${from} and id < ${from + SPAN}) b
            on a.id = b.id where a.said is distinct from b.said order by 1`,
    );
    for (const { id, is, was } of rows) {
      const what = was === null ? 'added' : is === null ? 'gone' : 'changed';
      news[what]++;
      if (told[what]++ < NEWS_TOLD) news.first.push({ what, id, is: is ?? '', was: was ?? '' });
    }
  }
  return news;
}

/** Says of a load that an earlier process began and did not end that it broke off. */
export async function sayBrokenOff(): Promise<void> {
  if (kept.veridonPeopleLoad) return;
  const database = await reading();
  const alive = (await openDatabase()).kind === 'pglite' ? [instanceId] : await living(database);
  const [broken] = await database
    .select({ source: rolls.source })
    .from(rolls)
    .where(and(eq(rolls.state, 'loading'), notInArray(rolls.instance, alive)));
  if (!broken || kept.veridonPeopleLoad) return;
  const message = `Veridon stopped while ${broken.source} was being loaded. Your people are unchanged. Load ${broken.source} again.`;
  const load: Load = { state: 'failed', message, people: 0, bytes: 0 };
  kept.veridonPeopleLoad = { load, stop: new AbortController(), ended: Promise.resolve() };
}

/** Forgets rolls that are not in use: old ones, and what was left of loads that broke off; some at a time. */
export async function forgetRolls(): Promise<void> {
  const database = await reading();
  const alive = (await openDatabase()).kind === 'pglite' ? [instanceId] : await living(database);
  const loading = kept.veridonPeopleLoad?.load.state === 'loading';
  const dead = await database
    .select({ id: rolls.id })
    .from(rolls)
    .where(
      and(
        ne(rolls.state, 'in use'),
        loading || alive.length > 1
          ? or(eq(rolls.state, 'old'), isNull(rolls.instance), notInArray(rolls.instance, alive))
          : undefined,
      ),
    );
  for (const { id } of dead) {
    for (let from = 0; ;) {
      const [next] = await database.select({ to: sql<number | null>`max(id)` }).from(
        database
          .select({ id: people.id })
          .from(people)
          .where(and(eq(people.roll, id), gt(people.id, from)))
          .orderBy(people.id)
          .limit(SPAN)
          .as('some'),
      );
      if (next?.to == null) break;
      await database.delete(people).where(and(eq(people.roll, id), lte(people.id, next.to)));
      from = next.to;
    }
    await database.delete(rolls).where(eq(rolls.id, id));
  }
}
