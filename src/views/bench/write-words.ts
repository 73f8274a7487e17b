import { LOW_BATTERY, type Radio, type WritePreview } from '@/core/bench';

/** What is said before a write, of one radio or of several. */

/** More channels emptied than this are said before all else. */
const MANY_EMPTIED = 10;

/** Unexpected effects of the write: many channels are cleared, or the plan is made for another model or radio. */
export function warningsOf({ change, madeForModel, workedOnFor }: WritePreview, radio: Radio): string[] {
  const emptied = radio.state === 'whole' ? (change?.removed.length ?? 0) : 0;
  return [
    ...(emptied > MANY_EMPTIED
      ? [
          `${emptied.toLocaleString()} channels of ${radio.called} are not in this plan. The write clears them.`,
        ]
      : []),
    ...(madeForModel !== null
      ? [`This plan is made for the ${madeForModel}. Veridon fits it to this ${radio.model}.`]
      : []),
    ...(workedOnFor !== null
      ? [`This plan is worked on for ${workedOnFor}. Veridon fits it to ${radio.called}.`]
      : []),
  ];
}

/** What the write changes, in a sentence; of a radio that is not whole only how much is written. */
export function summaryOf({ change, channels, besides }: WritePreview, whole: boolean): string {
  if (!change || !whole) return `${channels} channels will be written.`;
  const { added, changed, removed, same } = change;
  const n = besides.length;
  if (added.length + changed.length + removed.length + n === 0)
    return `Nothing changes: the radio holds these ${same} channels already.`;
  const words = `${added.length} new, ${changed.length} changed, ${removed.length} emptied, ${same} as they are.`;
  return n === 0 ? words : `${words} Beside the channels: ${n === 1 ? '1 change' : `${n} changes`}.`;
}

/** What keeps a radio from being written, and what to do; null where nothing does. */
export function hindranceOf({ newerThan, firmware, battery, copies, state }: Radio): string | null {
  if (newerThan !== null)
    return `Its firmware ${firmware} is newer than Veridon knows (${newerThan}): its memory may lie otherwise. It can be read and sealed, and is not written.`;
  if (battery !== null && battery < LOW_BATTERY)
    return `Its battery is at ${battery} percent; ${LOW_BATTERY} are wanted for a write. Charge it first.`;
  if (copies.length === 0 && state === 'whole')
    return 'Read it first: what it holds now is sealed then, so that you can always go back.';
  return null;
}
