import { part, PART_TYPE, type Part } from '../../core/part.test.kit';
import { openDatabase } from '../../db';
import { NOBODY } from '../once';
import { createDocument } from './create';
import { newestDocument } from './rows';
import { registerType } from './types';

/** The small type of the tests on the server: made in the database that is open. */

registerType({ type: PART_TYPE });

let made = 0;
/** How many parts were made so far. */
export const partsMade = (): number => made;

type Content = Parameters<typeof part> extends [string, ...infer Rest] ? Rest : never;

/** A new part with that content. */
export const makePart = async (...content: Content): Promise<Part> =>
  createDocument(part(`pt_made${String(++made).padStart(4, '0')}`, ...content), NOBODY, {});

export const database = async () => (await openDatabase()).database;

/** The newest revision of a part. */
export const newestPart = async (id: string) => newestDocument<Part>(await database(), id);
