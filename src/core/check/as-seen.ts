import type { Channel } from '../plan';

/**
 * The channels as somebody sees them who reads those fields alone: the very same list as the last time while none of these
 * fields changes in any of them, so that what was worked out of it stands. What is read of another field through such a list
 * may be out of date.
 *
 * @example const seen = asSeen('rx', 'tx'); seen(before.channels) === seen(renamed.channels) // true
 */
export function asSeen(...fields: (keyof Channel)[]): (channels: readonly Channel[]) => readonly Channel[] {
  let last: readonly Channel[] = [];
  /** The newest that was seen to be like `last`: most of it is the very same as what comes next. */
  let like: readonly Channel[] = last;
  const alike = (a: Channel, b: Channel) =>
    a === b || (a.id === b.id && fields.every((field) => a[field] === b[field]));
  return (channels) => {
    if (channels === like) return last;
    const same = channels.length === like.length && channels.every((one, at) => alike(one, like[at]!));
    if (!same) last = channels;
    like = channels;
    return last;
  };
}
