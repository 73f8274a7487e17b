import { z } from 'zod';
import { simpleType, type Shape, type AnyDocument } from './document';
import {
  KINDS,
  SCHEMAS,
  type ReceiveList,
  type Talkgroup,
  type TalkgroupId,
  type ReceiveListId,
} from './plan';
import * as fc from './property.test.kit';

/**
 * A second type of document, small and for tests alone: talkgroups and receive lists that several plans use, each at a revision. What
 * works on documents is tested on it as well as on plans.
 */

const kinds = { talkgroup: KINDS.talkgroup, receiveList: KINDS.receiveList };
const schemas = { talkgroup: SCHEMAS.talkgroup, receiveList: SCHEMAS.receiveList };

const headSchema = z.object({ name: z.string().min(1).max(60), note: z.string().max(200) });

export interface Part extends AnyDocument {
  format: 2;
  note: string;
  talkgroups: Talkgroup[];
  receiveLists: ReceiveList[];
}

const shape: Shape = {
  word: 'part',
  format: 2,
  kinds,
  schemas,
  headFields: ['name', 'note'],
  parted: {},
  head: headSchema,
  document: headSchema.extend({
    format: z.literal(2),
    id: z.string().regex(/^pt_[a-z0-9]{4,32}$/),
    talkgroups: z.array(schemas.talkgroup.record),
    receiveLists: z.array(schemas.receiveList.record),
  }),
  // The first format had no note.
  migrations: { 1: (document) => ({ ...document, format: 2, note: '' }) },
};

export const PART_TYPE = simpleType<Part>('part', 'pt', shape);

export const tg = (n: number) => `tg_part${String(n).padStart(4, '0')}` as TalkgroupId;
export const rl = (n: number) => `rl_part${String(n).padStart(4, '0')}` as ReceiveListId;

export const talkgroupOf = (n: number, number = n + 1): Talkgroup => ({
  ...{ id: tg(n), name: `Group ${n}`, number, call: 'group' },
});
export const listOf = (n: number, members: number[]): ReceiveList => ({
  ...{ id: rl(n), name: `List ${n}`, members: members.map(tg) },
});

export const part = (
  id: string,
  talkgroups: Talkgroup[] = [],
  receiveLists: ReceiveList[] = [],
  name = 'Harbour watch',
): Part => ({ format: 2, id, name, note: '', talkgroups, receiveLists });

/** What a random edit does, with numbers that are taken modulo what there is. */
const wish = fc.record({
  what: fc.constantFrom(
    'put',
    'put list',
    'rename',
    'renumber',
    'members',
    'remove',
    'remove list',
    'order',
    'note',
  ),
  n: fc.nat(11),
  other: fc.nat(11),
  some: fc.uniqueArray(fc.nat(11), { maxLength: 5 }),
});
export const wishes = fc.array(wish, { minLength: 1, maxLength: 25 });
export type Wish = typeof wishes extends fc.Arbitrary<(infer W)[]> ? W : never;

type PartEdit = Parameters<typeof PART_TYPE.apply>[1];

/** The edit that a wish is on a part; undefined where there is nothing to do it to. */
export function editFor({ what, n, other, some }: Wish, now: Part): PartEdit | undefined {
  const group = now.talkgroups[n % (now.talkgroups.length || 1)];
  const list = now.receiveLists[n % (now.receiveLists.length || 1)];
  const before = now.talkgroups[other % (now.talkgroups.length || 1)];
  const members = some.map(tg).filter((id) => now.talkgroups.some((one) => one.id === id));
  switch (what) {
    case 'put':
      return { name: 'put', kind: 'talkgroup', records: [talkgroupOf(n)], before: before?.id ?? null };
    case 'put list':
      return {
        name: 'put',
        kind: 'receiveList',
        records: [{ ...listOf(n, []), members } as ReceiveList],
        before: null,
      };
    case 'rename':
      return (
        group && {
          name: 'change',
          kind: 'talkgroup',
          changes: [{ id: group.id, set: { name: `Name ${other}` } }],
        }
      );
    case 'renumber':
      return (
        group && {
          name: 'change',
          kind: 'talkgroup',
          changes: [{ id: group.id, set: { number: other + 100 } }],
        }
      );
    case 'members':
      return list && { name: 'change', kind: 'receiveList', changes: [{ id: list.id, set: { members } }] };
    case 'remove':
      return group && { name: 'remove', kind: 'talkgroup', ids: [group.id] };
    case 'remove list':
      return list && { name: 'remove', kind: 'receiveList', ids: [list.id] };
    case 'order':
      return group && before && group !== before
        ? { name: 'order', kind: 'talkgroup', ids: [group.id], before: before.id }
        : undefined;
    case 'note':
      return { name: 'describe', set: { note: `Note ${other}` } };
  }
}
