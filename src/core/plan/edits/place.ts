import { fail, ok } from '../../result';
import { KINDS } from '../kinds';
import { orderedChannels } from '../plan';
import { countOf } from '../record';
import { withoutDangling } from '../references';
import { previewPlacing } from '../slots';
import { defineEdit } from './define';
import type { PlaceEdit } from './place.schema';

/** Puts new channels into slots of one list, making room in one of the ways of `PLACEMENTS`. */
export const place = defineEdit<PlaceEdit>({
  apply(plan, edit) {
    const { list = 0 } = edit;
    const preview = previewPlacing(
      plan.channels,
      edit.channels.length,
      edit.placement,
      edit.at,
      edit.range,
      list,
    );
    if (preview.leftOver.length > 0) {
      const words =
        preview.leftOver.length === 1 ? '1 channel finds' : `${preview.leftOver.length} channels find`;
      return fail(`${words} no slot. Choose fewer, or another way to place them.`);
    }
    const slots = preview.assigned.map(({ slot: assigned }) => assigned);
    if (edit.expect && edit.expect.join() !== slots.join())
      return fail('The slots have changed since the preview. Look at the new preview and place again.');
    const gone = new Set<string>(preview.overwritten);
    const moved = new Map(preview.pushed.map((move) => [move.id, move.to]));
    const channels = orderedChannels([
      ...plan.channels
        .filter(({ id }) => !gone.has(id))
        .map((c) => (moved.has(c.id) ? { ...c, slot: moved.get(c.id)! } : c)),
      ...edit.channels.map((channel, index) => ({ ...channel, list, slot: slots[index]! })),
    ]);
    if (typeof channels === 'string') return fail(channels);
    const next = { ...plan, channels };
    return ok(gone.size > 0 ? withoutDangling(next) : next);
  },
  label: ({ channels }) =>
    channels.length === 1
      ? `Place “${channels[0]!.name}”`
      : `Place ${countOf(channels.length, KINDS.channel)}`,
});
