import { getTableColumns, getTableName, is, type Column } from 'drizzle-orm';
import { PgTable } from 'drizzle-orm/pg-core';
import { z } from 'zod';
import * as db from '../db';
import { documents, revisions } from '../db';

/** Schemas for the rows of a backup, made from the tables of the database. Unknown tables, columns and values are refused before anything is restored. */

/**
 * What is no part of a backup: passwords, what a process keeps for its own sake, and rolls of people, which are large and are fetched again;
 * what one says of people is in it.
 */
export const LEFT_OUT: readonly string[] = [
  ...[
    'changes',
    'instances',
    'key_up_days',
    'key_up_logs',
    'lives',
    'people',
    'rolls',
    'secrets',
    'staged_records',
  ],
];

const tables = new Map(
  (Object.values(db) as unknown[])
    .filter((one): one is PgTable => is(one, PgTable))
    .map((table): [string, PgTable] => [getTableName(table), table]),
);

const text = z.string().refine((said) => !said.includes('\0'), 'has a character that is none');
const moment = z.string().refine((said) => !Number.isNaN(Date.parse(said)), 'is no moment');
const BY_TYPE: readonly [RegExp, z.ZodType][] = [
  [/^(integer|serial)$/, z.int().min(-2_147_483_648).max(2_147_483_647)],
  [/^bigint/, z.int()],
  [/^(double precision|real)$/, z.number()],
  [/^boolean$/, z.boolean()],
  [/^jsonb$/, z.unknown()],
  [/^timestamp/, moment],
  [/^bytea$/, z.string().regex(/^\\x([0-9a-f]{2})*$/, 'are no bytes')],
  [/^text$/, text],
];

function ofColumn(column: Column): z.ZodType {
  const [, schema] = BY_TYPE.find(([type]) => type.test(column.getSQLType())) ?? [];
  if (!schema) throw new Error(`${column.name} is of a type that no backup has: ${column.getSQLType()}.`);
  return column.notNull ? schema : schema.nullable();
}

/** Columns of which the type says too little: revisions are counted from 1. */
const NARROWER = new Map<Column, z.ZodType>([
  [documents.revision, z.int().min(1)],
  [revisions.revision, z.int().min(1)],
]);

/** What the rows of a table must be; undefined where no backup has that table. Columns that are not there take their usual value. */
export function rowsOfTable(name: string): { columns: readonly string[]; row: z.ZodType } | undefined {
  const table = LEFT_OUT.includes(name) ? undefined : tables.get(name);
  if (!table) return undefined;
  const columns = Object.values(getTableColumns(table));
  const shape = Object.fromEntries(
    columns.map((column) => [column.name, (NARROWER.get(column) ?? ofColumn(column)).optional()]),
  );
  return { columns: columns.map((column) => column.name), row: z.strictObject(shape) };
}
