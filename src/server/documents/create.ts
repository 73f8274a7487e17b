import type { AnyDocument } from '../../core/document';
import type { Database } from '../../db';
import { writing } from '../database';
import { once, type Asker } from '../once';
import { Problem } from '../problem';
import { documentAt } from './log';
import { documentIn, insertDocument, stageDocument } from './rows';
import { unstage } from './staging';
import { typeOf } from './types';
import { usesOf } from '../../core/document';
import { wantUsed } from './uses';

/** What is kept with a new document, together with it or not at all. */
export type KeptBeside = (database: Database, id: string) => Promise<void>;

/**
 * Keeps a document that was just made, as its first revision, once; sent again with the same key it is the same one. `request` is what was asked for, of which the document
 * was made.
 */
export async function createDocument<D extends AnyDocument>(
  document: D,
  asker: Asker,
  request: unknown,
  also?: KeptBeside,
): Promise<D> {
  const { id } = document;
  const { shape } = typeOf(id);
  const read = await documentIn<D>(shape, document);
  if (!read.ok)
    throw new Problem(422, 'no-plan', `This makes no ${shape.word}`, `${read.reason} Nothing was made.`);
  const database = await writing();
  if (usesOf(document).length > 0) await wantUsed(database, document);
  // Before the transaction, which keeps others waiting.
  const rows = await stageDocument(database, document);
  const insert = (transaction: Database) =>
    once<D, { id: string }>(
      transaction,
      asker,
      request,
      async () => {
        await insertDocument(transaction, document, rows);
        await also?.(transaction, id);
        return { answer: document, receipt: { id } };
      },
      (receipt) => documentAt<D>(transaction, receipt.id, 1),
    );
  try {
    return await database.transaction(insert);
  } finally {
    await unstage(database, rows);
  }
}
