import { z } from 'zod';
import { fail, ok } from '../../result';
import { CHANNEL_LIMIT } from '../channel';
import { channelIdSchema } from '../ids';
import { KINDS, recordsOf, withRecords, type AnyRecord } from '../kinds';
import { countOf } from '../record';
import { withoutDangling } from '../references';
import { zoneKind } from '../zone';
import { MISSING } from './change';
import { defineEdit } from './define';

/** Takes records out of the plan, and every reference to them. */
export const remove = defineEdit({
  schema: z.discriminatedUnion('kind', [
    z.object({
      name: z.literal('remove'),
      /** The first logs know no other kind and do not name it. */
      kind: z.literal('channel').optional(),
      ids: z.array(channelIdSchema).min(1).max(CHANNEL_LIMIT),
    }),
    z.object({
      name: z.literal('remove'),
      kind: z.literal('zone'),
      ids: z.array(zoneKind.schema.shape.id).min(1).max(zoneKind.limit),
    }),
  ]),
  apply(plan, { kind = 'channel', ids }) {
    const { words } = KINDS[kind];
    const records: readonly AnyRecord[] = recordsOf(plan, kind);
    const held = new Set<string>(records.map(({ id }) => id));
    const missing = ids.find((id) => !held.has(id));
    const one = words.one[0]!.toUpperCase() + words.one.slice(1);
    if (missing) return fail(`${one} ${missing} ${MISSING}.`);
    const going = new Set<string>(ids);
    return ok(
      withoutDangling(
        withRecords(
          plan,
          kind,
          records.filter(({ id }) => !going.has(id)),
        ),
      ),
    );
  },
  label({ kind = 'channel', ids }, plan) {
    const only =
      ids.length === 1 && (recordsOf(plan, kind) as readonly AnyRecord[]).find(({ id }) => id === ids[0]);
    const what = kind === 'channel' ? '' : `the ${KINDS[kind].words.one} `;
    return only ? `Remove ${what}“${only.name}”` : `Remove ${countOf(ids.length, KINDS[kind])}`;
  },
});
