import { z } from 'zod';
import { arrangeSchema } from './arrange.schema';
import { changeSchema } from './change.schema';
import { describeSchema } from './describe.schema';
import { orderSchema } from './order.schema';
import { placeSchema } from './place.schema';
import { putSchema } from './put.schema';
import { removeSchema } from './remove.schema';
import { restoreSchema } from './restore.schema';
import { setSchema } from './set.schema';

/** The edits that are one thing done; a few are general, over any kind of record, `place` and `arrange` know radio, `restore` is a difference. */
export const plainEditSchema = z.discriminatedUnion('name', [
  changeSchema,
  placeSchema,
  putSchema,
  removeSchema,
  orderSchema,
  arrangeSchema,
  describeSchema,
  restoreSchema,
  setSchema,
]);
export type PlainEdit = z.infer<typeof plainEditSchema>;
