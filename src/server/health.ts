import { sql } from 'drizzle-orm';
import { openDatabase } from '../db';
import { reading } from './database';

/** Asks the database a trifle and says which one it is; a problem where it cannot be used. */
export async function databaseKind(): Promise<'pglite' | 'server'> {
  const database = await reading();
  await database.execute(sql`select 1`);
  return (await openDatabase()).kind;
}
