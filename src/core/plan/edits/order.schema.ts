import { z } from 'zod';
import type { OwnKind } from '../kinds';
import { eachOwnKind, type IdOf } from '../kinds.schema';

export type OrderEdit = {
  [K in OwnKind]: {
    name: 'order';
    kind: K;
    ids: IdOf<K>[];
    before: IdOf<K> | null;
  };
}[OwnKind];

export const orderSchema = eachOwnKind<OrderEdit>((kind, { id }, limit) =>
  z.object({
    name: z.literal('order'),
    kind: z.literal(kind),
    ids: z.array(id).min(1).max(limit),
    before: id.nullable(),
  }),
);
