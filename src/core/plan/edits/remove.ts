import { fail, ok } from '../../result';
import { capital } from '../../text';
import { KINDS, recordsOf, withRecords } from '../kinds';
import type { AnyRecord } from '../kinds.schema';
import { withoutDangling } from '../references';
import { MISSING } from './change';
import { defineEdit } from './define';
import type { RemoveEdit } from './remove.schema';

/** Takes records out of the plan, and every reference to them. */
export const remove = defineEdit<RemoveEdit>({
  apply(plan, { kind = 'channel', ids }) {
    const { words } = KINDS[kind];
    const records: readonly AnyRecord[] = recordsOf(plan, kind);
    const held = new Set<string>(records.map(({ id }) => id));
    const missing = ids.find((id) => !held.has(id));
    if (missing) return fail(`${capital(words.one)} ${missing} ${MISSING}.`);
    const going = new Set<string>(ids);
    return ok(
      withoutDangling(
        withRecords(
          plan,
          kind,
          records.filter(({ id }) => !going.has(id)),
        ),
        { went: new Set([kind]) },
      ),
    );
  },
  label({ kind = 'channel', ids }, plan) {
    const only =
      ids.length === 1 && (recordsOf(plan, kind) as readonly AnyRecord[]).find(({ id }) => id === ids[0]);
    return { of: 'remove', kind, n: ids.length, ...(only && { name: only.name }) };
  },
});
