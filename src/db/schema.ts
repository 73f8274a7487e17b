import { doublePrecision, integer, jsonb, pgTable, pgView, primaryKey, text } from 'drizzle-orm/pg-core';
import type { BatchRow, CopyReason, JobKind, JobProgress, JobState, RadioCondition } from '../core/bench';
import type { Entry } from '../core/directory';
import type { ByHand } from '../core/organise';
import type {
  ChannelFields,
  ChannelId,
  PlanHead,
  PlanId,
  RadioId,
  SettingValue,
  UnitFacts,
} from '../core/plan';
import { bytes, instant } from './columns';

/** Documents of all types, plans among them: what is said of each as a whole, and where undo and redo stand in its log. Its records are rows beside it. */
export const documents = pgTable('documents', {
  id: text('id').primaryKey(),
  /** `plan`, or another type; see `server/documents/types.ts`. */
  type: text('type').notNull().default('plan'),
  name: text('name').notNull(),
  /** The model that a plan is for; null for documents of other types. */
  modelId: text('model_id'),
  /**
   * The whole plan as one document, as plans of format 1 were kept, where there is no `head`. A readable one
   * becomes rows with its next change; one that cannot be read stays as it is.
   */
  document: jsonb('document').$type<unknown>(),
  /** All else that is said of it; name and model have columns of their own. */
  head: jsonb('head').$type<object>(),
  /** How long the document is as JSON. */
  bytes: integer('bytes'),
  revision: integer('revision').notNull(),
  /** The revision that undo would take back; null where there is none. */
  undoHead: integer('undo_head'),
  /** The undo that redo would take back; null where there is none. */
  redoHead: integer('redo_head'),
  createdAt: instant('created_at').notNull().defaultNow(),
  updatedAt: instant('updated_at').notNull().defaultNow(),
  /** When it was put away; its document and log stay, so that it can be brought back. */
  removedAt: instant('removed_at'),
});

/** The documents that are plans; a view, to be read. */
export const plans = pgView('plans', {
  id: text('id').$type<PlanId>().notNull(),
  name: text('name').notNull(),
  modelId: text('model_id').notNull(),
  document: jsonb('document').$type<unknown>(),
  head: jsonb('head').$type<Omit<PlanHead, 'name' | 'modelId'>>(),
  bytes: integer('bytes'),
  revision: integer('revision').notNull(),
  undoHead: integer('undo_head'),
  redoHead: integer('redo_head'),
  createdAt: instant('created_at').notNull(),
  updatedAt: instant('updated_at').notNull(),
  removedAt: instant('removed_at'),
}).existing();

/**
 * Every change of every document, with its inverse. `beforeUndo` and `beforeRedo` are the heads as they were, so that the
 * two stacks are linked lists through the log and need no room of their own.
 */
export const revisions = pgTable(
  'revisions',
  {
    documentId: text('document_id')
      .notNull()
      .references(() => documents.id),
    revision: integer('revision').notNull(),
    kind: text('kind').$type<'edit' | 'undo' | 'redo'>().notNull(),
    edit: jsonb('edit').$type<object>().notNull(),
    inverse: jsonb('inverse').$type<object>().notNull(),
    /** Its label in words, in logs from before its parts were saved; otherwise empty. */
    label: text('label').notNull().default(''),
    labelParts: jsonb('label_parts').$type<object>(),
    /** How long edit and inverse are as JSON; null in logs from before this was kept. */
    bytes: integer('bytes'),
    beforeUndo: integer('before_undo'),
    beforeRedo: integer('before_redo'),
    /** The same for all revisions that one change of several documents made; null where it changed one. */
    changeId: text('change_id'),
    at: instant('at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.documentId, table.revision] })],
);

/** The records of documents, one a row, without their ids. Changed by difference, in the statement of the edit. */
export const records = pgTable(
  'records',
  {
    documentId: text('document_id')
      .notNull()
      .references(() => documents.id),
    kind: text('kind').notNull(),
    id: text('id').notNull(),
    /** Goes up in the order of a kind that has one of its own, with room between; 0 for records that carry their places, as channels do. */
    position: doublePrecision('position').notNull(),
    data: jsonb('data').$type<object>().notNull(),
  },
  (table) => [primaryKey({ columns: [table.documentId, table.kind, table.id] })],
);

/** Records on their way into a large document, read in stretches and moved in one step; `load` says which belong together. */
export const stagedRecords = pgTable('staged_records', {
  load: text('load').notNull(),
  documentId: text('document_id').notNull(),
  kind: text('kind').notNull(),
  id: text('id').notNull(),
  /** null for a row that keeps the one that it has. */
  position: doublePrecision('position'),
  data: jsonb('data').$type<object>().notNull(),
  at: instant('at').notNull().defaultNow(),
});

/** Documents as they were at some of their revisions, JSON by gzip, so that going back need not go through the whole log. */
export const snapshots = pgTable(
  'snapshots',
  {
    documentId: text('document_id')
      .notNull()
      .references(() => documents.id),
    revision: integer('revision').notNull(),
    document: bytes('document').notNull(),
  },
  (table) => [primaryKey({ columns: [table.documentId, table.revision] })],
);

/** What the list of plans says of each, worked out at a revision. It may be behind, and is worked out anew then. */
export const summaries = pgTable('summaries', {
  planId: text('plan_id')
    .primaryKey()
    .references(() => documents.id),
  revision: integer('revision').notNull(),
  /** When what the register knew nearby was heard, ms since 1970; 0 where nothing was. */
  heardAt: doublePrecision('heard_at').notNull(),
  summary: jsonb('summary').$type<unknown>().notNull(),
});

/** Radios that have been on the bench, by an id of ours; one without a serial is the only one of its model that has none. */
export const radios = pgTable('radios', {
  id: text('id').$type<RadioId>().primaryKey(),
  serial: text('serial'),
  modelId: text('model_id').notNull(),
  firmware: text('firmware').notNull(),
  /** Percent, as it said when it was last seen; null where its link does not say. */
  battery: integer('battery'),
  /** What its owner calls it. */
  label: text('label').notNull().default(''),
  /** Settings of its own, whatever plan it gets: a greeting, an identity. */
  own: jsonb('own').$type<Record<string, SettingValue>>().notNull().default({}),
  region: integer('region').notNull(),
  /** How it was made, by its newest sealed copy. */
  facts: jsonb('facts').$type<UnitFacts>(),
  state: text('state').$type<RadioCondition>().notNull(),
  firstSeen: instant('first_seen').notNull().defaultNow(),
  lastSeen: instant('last_seen').notNull().defaultNow(),
});

/** What the values of one unit were and are; null where one was removed. The log only grows. */
export const unitValues = pgTable(
  'unit_values',
  {
    radioId: text('radio_id')
      .$type<RadioId>()
      .notNull()
      .references(() => radios.id),
    /** Counts the entries of one unit, from 1. */
    number: integer('number').notNull(),
    key: text('key').notNull(),
    value: jsonb('value').$type<SettingValue | null>(),
    at: instant('at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.radioId, table.number] })],
);

/** Sealed copies: read-outs that a trigger keeps from being changed or removed. */
export const copies = pgTable('copies', {
  id: text('id').primaryKey(),
  radioId: text('radio_id')
    .$type<RadioId>()
    .notNull()
    .references(() => radios.id),
  modelId: text('model_id').notNull(),
  reason: text('reason').$type<CopyReason>().notNull(),
  sha256: text('sha256').notNull(),
  image: bytes('image').notNull(),
  takenAt: instant('taken_at').notNull().defaultNow(),
});

/** What people say of sealed copies. */
export const copyNotes = pgTable('copy_notes', {
  copyId: text('copy_id')
    .primaryKey()
    .references(() => copies.id),
  note: text('note').notNull(),
});

/** The image file of which a plan was opened: what is not ours in it is saved again with it. */
export const images = pgTable('images', {
  planId: text('plan_id')
    .$type<PlanId>()
    .primaryKey()
    .references(() => documents.id),
  modelId: text('model_id').notNull(),
  image: bytes('image').notNull(),
  at: instant('at').notNull().defaultNow(),
});

/** Reads and writes, under way and past. */
export const jobs = pgTable('jobs', {
  id: text('id').primaryKey(),
  kind: text('kind').$type<JobKind>().notNull(),
  radioId: text('radio_id')
    .$type<RadioId>()
    .notNull()
    .references(() => radios.id),
  modelId: text('model_id').notNull(),
  planId: text('plan_id'),
  planRevision: integer('plan_revision'),
  copyId: text('copy_id'),
  state: text('state').$type<JobState>().notNull(),
  message: text('message').notNull(),
  /** How far it is while it runs, as its instance last saved it; null in the embedded database, which has one instance. */
  progress: jsonb('progress').$type<JobProgress>(),
  result: jsonb('result'),
  /** What is to be in the radio, from before the first byte until it is proved to be there. */
  image: bytes('image'),
  /** The process that carries it out; it is lost when that process is. */
  instance: text('instance'),
  startedAt: instant('started_at').notNull().defaultNow(),
  endedAt: instant('ended_at'),
});

/** One plan written to several radios: what came of each. */
export const batches = pgTable('batches', {
  id: text('id').primaryKey(),
  planId: text('plan_id')
    .$type<PlanId>()
    .notNull()
    .references(() => documents.id),
  planRevision: integer('plan_revision').notNull(),
  rows: jsonb('rows').$type<BatchRow[]>().notNull(),
  instance: text('instance'),
  at: instant('at').notNull().defaultNow(),
});

/** Plans and radios that follow each other: what both had when they last agreed. */
export const lives = pgTable('lives', {
  radioId: text('radio_id')
    .$type<RadioId>()
    .primaryKey()
    .references(() => radios.id),
  planId: text('plan_id')
    .$type<PlanId>()
    .notNull()
    .references(() => documents.id),
  planRevision: integer('plan_revision').notNull(),
  image: bytes('image').notNull(),
  /** What is still to be decided. */
  apart: jsonb('apart').$type<ByHand[]>().notNull(),
  /** The process that follows them. */
  instance: text('instance'),
  at: instant('at').notNull().defaultNow(),
});

/** Changes by the key that their client made, so that one that is sent again is answered again and not done again. */
export const changes = pgTable('changes', {
  key: text('key').primaryKey(),
  /** A digest of what was asked for. */
  request: text('request').notNull(),
  /** What it came to, as little as the answer can be made of again. */
  receipt: jsonb('receipt'),
  at: instant('at').notNull().defaultNow(),
});

/** Processes that use this database, each with the moment at which it last showed that it lives. */
export const instances = pgTable('instances', {
  id: text('id').primaryKey(),
  seenAt: instant('seen_at').notNull().defaultNow(),
});

/** Revisions that a person named. */
export const marks = pgTable(
  'marks',
  {
    planId: text('plan_id')
      .notNull()
      .references(() => documents.id),
    revision: integer('revision').notNull(),
    name: text('name').notNull(),
    at: instant('at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.planId, table.revision] })],
);

/** When channels of a plan were heard: observed, so beside the plan and not in it. */
export const heard = pgTable(
  'heard',
  {
    planId: text('plan_id')
      .notNull()
      .references(() => documents.id),
    channelId: text('channel_id').$type<ChannelId>().notNull(),
    at: instant('at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.planId, table.channelId, table.at] })],
);

/** Stations as directories and files answered them, with the date; `goneAt` is when a directory no longer had one. */
export const stations = pgTable(
  'stations',
  {
    source: text('source').notNull(),
    ref: text('ref').notNull(),
    lat: doublePrecision('lat').notNull(),
    lon: doublePrecision('lon').notNull(),
    entry: jsonb('entry').$type<Entry>().notNull(),
    askedAt: instant('asked_at').notNull(),
    goneAt: instant('gone_at'),
  },
  (table) => [primaryKey({ columns: [table.source, table.ref] })],
);

/** Passwords and other secrets, encrypted with a key that is not in the database (`server/secrets.ts`). */
export const secrets = pgTable('secrets', {
  id: text('id').primaryKey(),
  encrypted: bytes('encrypted').notNull(),
  at: instant('at').notNull().defaultNow(),
});

/** Groups of channels that somebody put together to begin plans with. */
export const starterSets = pgTable('starter_sets', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  channels: jsonb('channels').$type<ChannelFields[]>().notNull(),
  at: instant('at').notNull().defaultNow(),
});

/** News of directories that somebody looked at and left, by plan and by what was said. */
export const newsLeft = pgTable(
  'news_left',
  {
    planId: text('plan_id')
      .notNull()
      .references(() => documents.id),
    key: text('key').notNull(),
    at: instant('at').notNull().defaultNow(),
  },
  (table) => [primaryKey({ columns: [table.planId, table.key] })],
);

/** Files that somebody has as directories of their own; their stations stand among `stations`. */
export const ownDirectories = pgTable('own_directories', {
  id: text('id').primaryKey(),
  name: text('name').notNull(),
  at: instant('at').notNull().defaultNow(),
  /** Its stations count once it is whole. */
  state: text('state').$type<'loading' | 'whole' | 'broken off'>().notNull().default('whole'),
  instance: text('instance'),
});
