import type { Row, Tables } from '../format';
import {
  fittedReceiveListSchema,
  fittedScanListSchema,
  fittedTalkgroupSchema,
  type Content,
  type FittedChannel,
} from '../models';
import { callNumberSchema } from '../plan/talkgroup.schema';

/** Talkgroups, receive lists and scan lists between a content and rows of tables. */

/** What of a content refers to others by their numbers beside channels. */
export type Lists = Pick<Content, 'talkgroups' | 'receiveLists' | 'scanLists'>;

/** The rows of the lists, by table. */
export function* listRows({
  talkgroups,
  receiveLists,
  scanLists,
}: Lists): Generator<[table: string, number: number, fields: Row['fields']]> {
  for (const { number, ...fields } of talkgroups) yield ['talkgroups', number, fields];
  for (const { number, ...fields } of receiveLists) yield ['receiveLists', number, fields];
  for (const { number, ...fields } of scanLists) yield ['scanLists', number, fields];
}

/** The lists of an image. What they name and is not there they name no more; a talkgroup without a number that is one is odd. */
export function listsOf(tables: Tables['tables'], inUse: (slots: unknown) => number[], odd: string[]): Lists {
  const lists: Lists = { talkgroups: [], receiveLists: [], scanLists: [] };
  for (const { number, fields } of tables.talkgroups ?? []) {
    const read = fittedTalkgroupSchema.safeParse({ number, ...fields });
    if (read.success && callNumberSchema.safeParse(read.data.address).success)
      lists.talkgroups.push(read.data);
    else odd.push(`talkgroup ${number} (no number that is called)`);
  }
  const there = new Set(lists.talkgroups.map(({ number }) => number));
  for (const { number, fields } of tables.receiveLists ?? []) {
    const read = fittedReceiveListSchema.safeParse({ number, ...fields });
    if (read.success)
      lists.receiveLists.push({
        ...read.data,
        members: once(read.data.members).filter((one) => there.has(one)),
      });
    else odd.push(`receive list ${number}`);
  }
  for (const { number, fields } of tables.scanLists ?? []) {
    const one = (slot: unknown) => inUse([slot])[0] ?? null;
    const read = fittedScanListSchema.safeParse({
      ...fields,
      number,
      slots: once(inUse(fields.slots)),
      first: one(fields.first),
      second: one(fields.second ?? null),
    });
    if (read.success) lists.scanLists.push(read.data);
    else odd.push(`scan list ${number}`);
  }
  return lists;
}

/** The numbers of a list, each once, at the place where it first stands. */
export const once = (numbers: readonly number[]): number[] => [...new Set(numbers)];

/** A channel that refers to nothing that the radio does not have. */
export function withoutLost(channel: FittedChannel, lists: Lists): FittedChannel {
  const { digital, scanList } = channel;
  const held = (number: number | null, of: readonly { number: number }[]) =>
    of.some((one) => one.number === number) ? number : null;
  if (!digital && !scanList) return channel;
  return {
    ...channel,
    ...(digital && {
      digital: {
        ...digital,
        talkgroup: held(digital.talkgroup, lists.talkgroups),
        receiveList: held(digital.receiveList, lists.receiveLists),
      },
    }),
    ...(scanList !== undefined && { scanList: held(scanList, lists.scanLists) }),
  };
}
