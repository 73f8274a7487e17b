import { fail, ok } from '../../result';
import { KINDS, recordsOf, withRecords } from '../kinds';
import type { AnyRecord } from '../kinds.schema';
import { MISSING } from './change';
import { defineEdit } from './define';
import type { OrderEdit } from './order.schema';

/** Takes records out of their order and puts them before another one, or at the end; they keep their order among themselves. */
export const order = defineEdit<OrderEdit>({
  apply(plan, { kind, ids, before }) {
    const { words } = KINDS[kind];
    const there: readonly AnyRecord[] = recordsOf(plan, kind);
    const going = new Set<string>(ids);
    const taken = there.filter(({ id }) => going.has(id));
    if (taken.length < going.size) return fail(`One of the ${words.many} ${MISSING}.`);
    const from = before === null ? there.length : there.findIndex(({ id }) => id === before);
    if (from < 0) return fail(`The ${words.one} ${before} ${MISSING}.`);
    const stays = ({ id }: AnyRecord) => !going.has(id);
    const around = [...there.slice(0, from).filter(stays), ...taken, ...there.slice(from).filter(stays)];
    return ok(withRecords(plan, kind, around));
  },
  label: ({ kind, ids }) => ({ of: 'order', kind, n: ids.length }),
});
