import { boolean, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core';
import type { OddRows, RollNews } from '../core/people';
import { bytes, instant } from './columns';

/** The tables of people: rolls, key-ups, and what somebody says of a person. */

/** Lists of people by their numbers. One is in use; another may be loading, or be left of a load that broke off. */
export const rolls = pgTable('rolls', {
  id: integer('id').primaryKey(),
  source: text('source').notNull(),
  /** When it was made, by its own word. */
  made: text('made').notNull().default(''),
  at: instant('at').notNull().defaultNow(),
  state: text('state').$type<'loading' | 'in use' | 'old'>().notNull(),
  /** The process that loads it. */
  instance: text('instance'),
  people: integer('people').notNull().default(0),
  odd: jsonb('odd').$type<OddRows>(),
  /** What it has otherwise than the one before. */
  news: jsonb('news').$type<RollNews>(),
});

export const people = pgTable(
  'people',
  {
    /** Of a roll that is there: who puts people in sees to it. */
    roll: integer('roll').notNull(),
    id: integer('id').notNull(),
    call: text('call').notNull(),
    first: text('first').notNull(),
    last: text('last').notNull(),
    town: text('town').notNull(),
    area: text('area').notNull(),
  },
  (table) => [primaryKey({ columns: [table.roll, table.id] })],
);

/** The log of key-ups that is in use; its number counts up with each that is loaded. */
export const keyUpLogs = pgTable('key_up_logs', {
  id: integer('id').primaryKey(),
  source: text('source').notNull(),
  at: instant('at').notNull().defaultNow(),
  keyUps: integer('key_ups').notNull(),
  odd: jsonb('odd').$type<OddRows>().notNull(),
});

/** Key-ups of a day on a talkgroup: pairs of a number and how often, packed. */
export const keyUpDays = pgTable(
  'key_up_days',
  {
    day: text('day').notNull(),
    talkgroup: integer('talkgroup').notNull(),
    keyUps: integer('key_ups').notNull(),
    counts: bytes('counts').notNull(),
  },
  (table) => [primaryKey({ columns: [table.day, table.talkgroup] })],
);

/** What somebody says of a person, with who that was then. */
export const personMarks = pgTable('person_marks', {
  id: integer('id').primaryKey(),
  pinned: boolean('pinned').notNull(),
  note: text('note').notNull(),
  call: text('call').notNull(),
  name: text('name').notNull(),
});
