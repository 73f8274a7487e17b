import { z } from 'zod';
import { CHANNEL_LIMIT, channelSchema } from '../channel';
import { applyDifference, type Difference } from '../difference';
import { channelIdSchema } from '../ids';
import { KIND_NAMES, KINDS, type Kind } from '../kinds';
import { detailsSchema, headSchema } from '../plan';
import { abbreviationsSchema } from '../abbreviations';
import { countOf } from '../record';
import { zoneKind } from '../zone';
import { defineEdit } from './define';

const channels = z.array(channelSchema).max(CHANNEL_LIMIT);
const channelIds = z.array(channelIdSchema).max(CHANNEL_LIMIT);
const zoneIds = z.array(zoneKind.schema.shape.id).max(zoneKind.limit);

const schema = z.object({
  name: z.literal('restore'),
  records: z
    .object({
      channel: z.object({ put: channels, remove: channelIds }).optional(),
      zone: z
        .object({
          put: z.array(zoneKind.schema).max(zoneKind.limit),
          remove: zoneIds,
          order: zoneIds.optional(),
        })
        .optional(),
    })
    .strict()
    .optional(),
  head: headSchema.extend({ abbreviations: abbreviationsSchema.nullable() }).optional(),
  // How logs of format 1 have it: channels alone, and the oldest know no abbreviations.
  put: channels.optional(),
  remove: channelIds.optional(),
  details: detailsSchema.extend({ abbreviations: abbreviationsSchema.nullable().optional() }).optional(),
});

/** A difference laid over the plan: the form that inverses take. */
export const restore = defineEdit({
  schema,
  apply: (plan, edit) => {
    const { details } = edit;
    // The oldest details say nothing of abbreviations; later ones may say that there were none.
    const head = edit.head ?? (details && { abbreviations: plan.abbreviations, ...details });
    return applyDifference(plan, { records: recordsIn(edit), ...(head && { head }) });
  },
  label(edit) {
    const records = recordsIn(edit);
    const touched = (kind: Kind) => {
      const { put = [], remove = [] } = records[kind] ?? {};
      return put.length + remove.length;
    };
    const kinds = KIND_NAMES.filter((kind) => touched(kind) > 0);
    if (kinds.length === 0)
      return edit.head || edit.details ? 'Restore the plan’s details' : 'Restore nothing';
    return `Restore ${kinds.map((kind) => countOf(touched(kind), KINDS[kind])).join(' and ')}`;
  },
});

/** The records of a restore in either of its two forms. */
function recordsIn({ records, put, remove }: z.infer<typeof schema>): Difference['records'] {
  if (records) return records;
  return put || remove ? { channel: { put: put ?? [], remove: remove ?? [] } } : {};
}
