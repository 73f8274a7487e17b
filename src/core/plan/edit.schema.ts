import { z } from 'zod';
import { arrangeSchema } from './edits/arrange.schema';
import { changeSchema } from './edits/change.schema';
import { describeSchema } from './edits/describe.schema';
import { orderSchema } from './edits/order.schema';
import { placeSchema } from './edits/place.schema';
import { putSchema } from './edits/put.schema';
import { removeSchema } from './edits/remove.schema';
import { restoreSchema } from './edits/restore.schema';

/**
 * Every change of a plan, as a value. `applyEdit` runs it, `editLabel` says it in words, `inverseOf` undoes it. A few are
 * general, over any kind of record (put, change, remove, order); `place` and `arrange` know radio; `restore` is a difference.
 */
export const editSchema = z.discriminatedUnion('name', [
  changeSchema,
  placeSchema,
  putSchema,
  removeSchema,
  orderSchema,
  arrangeSchema,
  describeSchema,
  restoreSchema,
]);
export type Edit = z.infer<typeof editSchema>;

/** An edit of that name. */
export type EditNamed<N extends Edit['name']> = Extract<Edit, { name: N }>;
