import { sql } from 'drizzle-orm';
import { openDatabase } from '../db';
import { problemOf, reading } from './database';

/** Asks the database a trifle and says which one it is; a problem where it cannot be used. */
export async function databaseKind(): Promise<'pglite' | 'server'> {
  const database = await reading();
  try {
    await database.execute(sql`select 1`);
  } catch (error) {
    throw problemOf(error) ?? error;
  }
  return (await openDatabase()).kind;
}
