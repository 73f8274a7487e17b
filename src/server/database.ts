import { checkRoom, DataPlaceError, dataPlace, openDatabase, type Database } from '../db';
import { Problem } from './problem';

const unusable = (error: DataPlaceError) =>
  new Problem(507, 'data-directory', 'The data directory cannot be used', error.message);

/** The database for reading. A data directory that cannot be used becomes a problem that says so. */
export async function reading(): Promise<Database> {
  try {
    return (await openDatabase()).database;
  } catch (error) {
    throw error instanceof DataPlaceError ? unusable(error) : error;
  }
}

/** The database for writing: refuses beforehand when the disk is nearly full, so that no write is cut in the middle. */
export async function writing(): Promise<Database> {
  try {
    const opened = await openDatabase();
    if (opened.kind === 'pglite') checkRoom(dataPlace());
    return opened.database;
  } catch (error) {
    throw error instanceof DataPlaceError ? unusable(error) : error;
  }
}
