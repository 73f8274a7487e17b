import Papa from 'papaparse';
import { Readable } from 'node:stream';
import { and, desc, eq, gte, inArray, lte, sql } from 'drizzle-orm';
import {
  addCounts,
  curveOf,
  keyUpLog,
  packCounts,
  rank,
  type BoardLoad,
  type KeyUpCounts,
  type ListedPerson,
  type Point,
} from '../core/people';
import { LAST_PERSON_ID } from '../core/people/person.schema';
import { keyUpDays, keyUpLogs, personMarks } from '../db';
import { reading, rowsOf, writing } from './database';
import { bytesOf, LoadFailed } from './fetch-bytes';
import { listed } from './people';
import { rollInUse } from './people-text';
import { Problem } from './problem';

/** The Heard Board: who keyed up how often on which talkgroup; loaded whole, and ranked when it is asked. */

const BOARD = { source: 'Heard Board', path: '/heard-board/key-ups.csv' };
/** Longest log that is read, bytes. */
const LONGEST = 300_000_000;
/** Days of talkgroups that are kept at once. */
const AT_ONCE = 200;
/** Points of the curve that is drawn. */
const POINTS = 160;

interface Loading {
  load: BoardLoad;
  stop: AbortController;
  ended: Promise<void>;
}
// One for the process, however often modules are loaded again.
const kept = globalThis as {
  veridonBoardLoad?: Loading;
  veridonRollNumbers?: { roll: number; numbers: Promise<Uint8Array> };
};

/** The log that is being loaded, or what came of the last; null where this process has loaded none. */
const lastLoad = (): BoardLoad | null => kept.veridonBoardLoad?.load ?? null;

/** Begins to load the board, and answers at once. */
export async function startBoard(): Promise<BoardLoad> {
  await writing();
  if (kept.veridonBoardLoad?.load.state === 'loading')
    throw new Problem(
      409,
      'people-busy',
      'A log is being loaded',
      'A log is being loaded already. Stop that first, or wait for it.',
    );
  const load: BoardLoad = { state: 'loading', message: `Asking the ${BOARD.source}.`, keyUps: 0, bytes: 0 };
  const stop = new AbortController();
  kept.veridonBoardLoad = { load, stop, ended: run(load, stop.signal) };
  return { ...load };
}

/** Stops what is being loaded; the log in use stays. */
export async function stopBoard(): Promise<BoardLoad | null> {
  const running = kept.veridonBoardLoad;
  if (running?.load.state === 'loading') {
    running.stop.abort();
    await running.ended;
  }
  return lastLoad();
}

/** Resolves when nothing is being loaded any more. */
export const boardEnded = (): Promise<void> => kept.veridonBoardLoad?.ended ?? Promise.resolve();

const grouped = (n: number) => n.toLocaleString('en');

async function run(load: BoardLoad, signal: AbortSignal): Promise<void> {
  try {
    const counts = await read(load, signal);
    load.message = 'Keeping what was counted.';
    signal.throwIfAborted();
    await keep(counts);
    load.state = 'done';
    load.message = `${grouped(counts.keyUps)} key-ups are counted.${counts.odd.count === 0 ? '' : ` ${grouped(counts.odd.count)} rows were odd.`}`;
  } catch (error) {
    const stopped = signal.aborted;
    load.state = stopped ? 'stopped' : 'failed';
    if (!stopped && !(error instanceof LoadFailed) && !(error instanceof Problem)) console.error(error);
    const why =
      error instanceof LoadFailed
        ? error.message
        : error instanceof Problem
          ? error.detail
          : 'Veridon made a mistake here.';
    load.message = `${stopped ? 'Stopped.' : why} What was counted before is as it was.`;
  }
}

/** Counts the board as it comes; nothing of it is held but counts. */
async function read(load: BoardLoad, signal: AbortSignal): Promise<KeyUpCounts> {
  const log = keyUpLog();
  const told = async function* () {
    for await (const bytes of bytesOf(BOARD, signal)) {
      load.bytes += bytes.length;
      if (load.bytes > LONGEST)
        throw new LoadFailed(`It is longer than ${LONGEST / 1e6} MB, which no Heard Board is.`);
      yield Buffer.from(bytes);
    }
  };
  await new Promise<void>((resolve, reject) => {
    const stream = Readable.from(told());
    stream.on('error', reject);
    Papa.parse<string[]>(stream, {
      chunk({ data }) {
        for (const row of data) log.row(row);
        load.keyUps += data.length;
        load.message = `${grouped(load.keyUps)} rows so far.`;
      },
      complete: () => resolve(),
      error: reject,
    });
  });
  const end = log.end();
  if (!end.ok) throw new LoadFailed(end.reason);
  return end.value;
}

/** Puts a log in the place of the one in use, whole or not at all. */
async function keep({ keyUps, odd, days }: KeyUpCounts): Promise<void> {
  const rows = [...days].flatMap(([day, groups]) =>
    [...groups].map(([talkgroup, counts]) => ({
      ...{ day, talkgroup, counts: packCounts(counts) },
      keyUps: [...counts.values()].reduce((sum, times) => sum + times, 0),
    })),
  );
  await (
    await writing()
  ).transaction(async (transaction) => {
    await transaction.delete(keyUpDays);
    for (let from = 0; from < rows.length; from += AT_ONCE)
      await transaction.insert(keyUpDays).values(rows.slice(from, from + AT_ONCE));
    const [before] = await transaction.select({ id: keyUpLogs.id }).from(keyUpLogs);
    await transaction.delete(keyUpLogs);
    await transaction
      .insert(keyUpLogs)
      .values({ id: (before?.id ?? 0) + 1, source: BOARD.source, keyUps, odd });
  });
}

/** What is counted: when it was loaded, from which day to which, and on which talkgroups. */
export async function boardNow() {
  const database = await reading();
  const [log] = await database.select().from(keyUpLogs).orderBy(desc(keyUpLogs.id));
  if (!log) return { board: null, load: lastLoad() };
  const groups = await database
    .select({ number: keyUpDays.talkgroup, keyUps: sql<number>`sum(${keyUpDays.keyUps})::int` })
    .from(keyUpDays)
    .groupBy(keyUpDays.talkgroup)
    .orderBy(desc(sql`sum(${keyUpDays.keyUps})`), keyUpDays.talkgroup);
  const [span] = await rowsOf<{ first: string; last: string }>(
    database,
    sql`select min(day) as first, max(day) as last from key_up_days`,
  );
  const { source, at, keyUps, odd } = log;
  return {
    board: {
      source,
      at: at.toISOString(),
      keyUps,
      odd,
      from: span!.first,
      to: span!.last,
      talkgroups: groups,
    },
    load: lastLoad(),
  };
}

/** Numbers of a roll that are fetched at once. */
const NUMBERS_AT_ONCE = 20_000;

/** The numbers of everybody in a roll, a bit each; of millions all at once would keep others waiting. */
async function numbersOf(roll: number): Promise<Uint8Array> {
  const bits = new Uint8Array((LAST_PERSON_ID >> 3) + 1);
  const database = await reading();
  for (let last = 0, full = true; full;) {
    const [row] = await rowsOf<{ ids: number[] | null }>(
      database,
      sql`select array_agg(id order by id) as ids from (
        select id from people where roll = ${roll} and id > ${last} order by id limit ${NUMBERS_AT_ONCE}) as piece`,
    );
    const ids = row?.ids ?? [];
    for (const id of ids) bits[id >> 3]! |= 1 << (id & 7);
    last = ids.at(-1) ?? last;
    full = ids.length === NUMBERS_AT_ONCE;
  }
  return bits;
}

/** Says who is in the roll in use; null where there is none. */
async function inRollNow(): Promise<((id: number) => boolean) | null> {
  const roll = await rollInUse();
  if (roll === undefined) return null;
  if (kept.veridonRollNumbers?.roll !== roll) {
    const numbers = numbersOf(roll);
    kept.veridonRollNumbers = { roll, numbers };
    numbers.catch(() => delete kept.veridonRollNumbers);
  }
  const bits = await kept.veridonRollNumbers!.numbers;
  return (id) => (bits[id >> 3]! & (1 << (id & 7))) !== 0;
}

/** What people are ranked by. */
export interface RankQuery {
  /** Talkgroups; all of them where there are none. */
  groups: readonly number[];
  from?: string | undefined;
  to?: string | undefined;
  /** Who counts: everybody whom the roll knows, or every number of a person's length. */
  who: 'in the roll' | 'all';
  /** How many are named. */
  most: number;
}

export interface RankAnswer {
  ranked: (ListedPerson & { keyUps: number })[];
  people: number;
  keyUps: number;
  left: { numbers: number; keyUps: number };
  curve: Point[];
}

/** Numbers of people by how often they keyed up, pinned first. */
export async function rankedNumbers({ groups, from, to, who }: Omit<RankQuery, 'most'>) {
  const database = await reading();
  const rows = await database
    .select({ counts: keyUpDays.counts })
    .from(keyUpDays)
    .where(
      and(
        groups.length > 0 ? inArray(keyUpDays.talkgroup, [...groups]) : undefined,
        from ? gte(keyUpDays.day, from) : undefined,
        to ? lte(keyUpDays.day, to) : undefined,
      ),
    );
  const counts = new Map<number, number>();
  for (const row of rows) addCounts(counts, row.counts);
  const pins = await database
    .select({ id: personMarks.id })
    .from(personMarks)
    .where(eq(personMarks.pinned, true));
  const inRoll = await inRollNow();
  return rank(counts, {
    pinned: new Set(pins.map(({ id }) => id)),
    // Numbers of people have seven figures; repeaters and services have fewer.
    isPerson: (id) => id >= 1_000_000 && (who === 'all' || inRoll === null || inRoll(id)),
  });
}

/** People by how often they keyed up, pinned first; how much of it so many of them are. */
export async function rankPeople({ most, ...query }: RankQuery): Promise<RankAnswer> {
  const { ranked, keyUps, left } = await rankedNumbers(query);
  const first = ranked.slice(0, most);
  const persons = new Map(
    (
      await listed(
        await rollInUse(),
        first.map(({ id }) => id),
      )
    ).map((person) => [person.id, person]),
  );
  return {
    ranked: first.map(({ id, keyUps: times }) => ({
      ...(persons.get(id) ?? {
        id,
        call: '',
        first: '',
        last: '',
        town: '',
        area: '',
        mark: null,
        known: false,
      }),
      keyUps: times,
    })),
    people: ranked.length,
    ...{ keyUps, left },
    curve: curveOf(ranked, POINTS),
  };
}
