import type { PartedField, Placed, Structure } from '../document';
import { KINDS } from './kinds';
import { bySlot, HEAD_FIELDS, orderedChannels } from './plan';
import type { Channel } from './channel.schema';
import type { Plan } from './plan.schema';
import { settingChanges, settingsClash, withSettings } from './setting-changes';
import { withSettingReferences } from './setting-references';

/** What plans are made of, as the machinery of documents has it. */
const settings: PartedField = {
  changes: (before, after) => settingChanges(before as Plan['settings'], after as Plan['settings']),
  with: (value, changes) =>
    withSettings(value as Plan['settings'], changes as Parameters<typeof withSettings>[1]),
  clash: (mine, theirs) =>
    settingsClash(mine as Parameters<typeof settingsClash>[0], theirs as Parameters<typeof settingsClash>[1]),
  withReferences: (value, of) => withSettingReferences(value as Plan['settings'], of),
  word: 'setting',
  clashText: 'This setting of the radio was changed meanwhile. Look at it and try again.',
};

/** Channels carry their slots. */
const slots: Placed = {
  kind: 'channel',
  ordered: (records) => orderedChannels(records as readonly Channel[]),
  stand(was, is) {
    const [before, after] = [was, is] as [readonly Channel[], readonly Channel[]];
    return (
      before.length === after.length &&
      before.every((one, index) => {
        const other = after[index]!;
        return one === other || (one.id === other.id && one.slot === other.slot && one.list === other.list);
      })
    );
  },
  goUp(places, records) {
    const channels = records as readonly Channel[];
    return places.every((at) => {
      const [previous, own, next] = [channels[at - 1], channels[at]!, channels[at + 1]];
      return !(previous && bySlot(previous, own) >= 0) && !(next && bySlot(own, next) >= 0);
    });
  },
  text: 'The channels would not be in slot order.',
};

export const PLAN_STRUCTURE: Structure = {
  word: 'plan',
  kinds: KINDS,
  headFields: HEAD_FIELDS,
  parted: { settings },
  placed: slots,
};
