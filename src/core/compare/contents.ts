import equal from 'fast-deep-equal';
import { z } from 'zod';
import { fittedChannelSchema, type FittedChannel } from '../models';
import { differsInWords, type Referred } from './channel-words';

export const contentChangeSchema = z.object({
  added: z.array(fittedChannelSchema),
  /** `text`: in which fields, in words. */
  changed: z.array(z.object({ before: fittedChannelSchema, after: fittedChannelSchema, text: z.string() })),
  removed: z.array(fittedChannelSchema),
  same: z.int(),
});
/** What a write changes in a radio, slot by slot. */
export type ContentChange = z.infer<typeof contentChangeSchema>;

const FIELDS = [
  'list',
  'slot',
  'name',
  'rx',
  'tx',
  'split',
  'send',
  'expect',
  'mode',
  'power',
  'scan',
  'digital',
  'scanList',
] as const;

/** True where two channels of a radio are the same: at the same place, and alike in all that it holds. */
export const sameInRadio = (one: FittedChannel, other: FittedChannel): boolean =>
  FIELDS.every((field) => equal(one[field], other[field]));

/** Compares what a radio holds with what it is to hold; both by slot. `lists` is what the channels of each side refer to. */
export function compareContents(
  before: readonly FittedChannel[],
  after: readonly FittedChannel[],
  lists?: { was: Referred; is: Referred },
): ContentChange {
  const key = ({ list, slot }: FittedChannel) => `${list} ${slot}`;
  const old = new Map(before.map((channel) => [key(channel), channel]));
  const change: ContentChange = { added: [], changed: [], removed: [], same: 0 };
  for (const channel of after) {
    const was = old.get(key(channel));
    old.delete(key(channel));
    if (!was) change.added.push(channel);
    else if (sameInRadio(was, channel)) change.same++;
    else change.changed.push({ before: was, after: channel, text: differsInWords(was, channel, lists) });
  }
  change.removed = [...old.values()];
  return change;
}
