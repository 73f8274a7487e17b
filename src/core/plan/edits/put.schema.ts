import { z } from 'zod';
import type { OwnKind } from '../kinds';
import { eachOwnKind, type IdOf, type RecordOf } from '../kinds.schema';

export type PutEdit = {
  [K in OwnKind]: {
    name: 'put';
    kind: K;
    records: RecordOf<K>[];
    before: IdOf<K> | null;
  };
}[OwnKind];

export const putSchema = eachOwnKind<PutEdit>((kind, { id, record }, limit) =>
  z.object({
    name: z.literal('put'),
    kind: z.literal(kind),
    records: z.array(record).min(1).max(limit),
    before: id.nullable(),
  }),
);
