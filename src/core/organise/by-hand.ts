import equal from 'fast-deep-equal';
import { contentToWrite, type WriteContent } from '../check';
import { compareBesides, type BesideChange } from '../compare';
import { recordsHeld, type RecordsHeld } from '../fit';
import type { RadioContent } from '../image';
import { placeText, slotsOf, type FittedChannel, type Model } from '../models';
import { withoutSlot, type ChannelId, type ChannelSet, type Edit, type PlainEdit, type Plan } from '../plan';
import { cutText } from '../text';
import { byPlace, keyOf } from './by-place';
import {
  FIELDS,
  inWords,
  newChannel,
  refersElsewhere,
  setOf,
  talkgroupFor,
  valueOf,
  whole,
  withTheirs,
  type Field,
  type Held,
} from './held-fields';

/**
 * Three ways: what a plan wrote into a radio, what the radio holds now, and the plan as it is now. What was done on the radio's own keys
 * is offered to the plan as edits; where the plan has gone another way meanwhile both are said side by side, and nothing is taken by itself.
 */

/** Something that was done on a radio's own keys, as an edit of the plan. */
export interface ByHand {
  at: { list: number; slot: number };
  /** Where in the radio: `007`, `Left 007`. */
  place: string;
  name: string;
  what: 'changed' | 'added' | 'removed';
  /** What the radio says now, in words. */
  radio: string;
  /** What the plan says now; null where that is still what was written. */
  plan: string | null;
  edit: Edit;
}

export interface ByHandChanges {
  changes: ByHand[];
  /** All that the plan has not changed otherwise, as one edit; null where that is nothing. */
  all: Edit | null;
  /** Banks, sets and settings that are other than they were written, in words. */
  besides: BesideChange[];
}

/** Most characters of what an edit is called. */
export const LABEL_LIMIT = 120;

/**
 * What was done on the keys of a radio since `written`, the plan as it was written there, after which it held `before`. `newId` gives a
 * new channel its id, the same each time for the same place.
 */
export function changedByHand(
  written: Plan,
  { before, radio }: { before: RadioContent; radio: RadioContent },
  own: Plan,
  model: Model,
  newId: (place: { list: number; slot: number }) => ChannelId,
): ByHandChanges {
  const base: WriteContent = contentToWrite(written, model);
  const now = contentToWrite(own, model);
  const groupsIn = ({ talkgroups }: Pick<RadioContent, 'talkgroups'>) =>
    new Map(talkgroups.map((group) => [group.number, group]));
  // The radio's numbers are those that the write gave it.
  const [thenRecords, nowRecords] = [written, own].map((plan) => recordsHeld(plan, model));
  const having = <C extends FittedChannel>(
    content: { channels: readonly C[] } & Pick<RadioContent, 'talkgroups'>,
    records: RecordsHeld,
  ) => {
    const groups = groupsIn(content);
    return content.channels.map((channel) => ({ ...channel, records, groups }));
  };
  const [then, held] = [byPlace(having(base, thenRecords!)), byPlace(having(radio, thenRecords!))];
  const ownById = new Map(own.channels.map((channel) => [channel.id, channel]));
  const nowChannels = having(now, nowRecords!);
  const nowById = new Map(nowChannels.map((channel) => [channel.id, channel]));
  const nowByPlace = byPlace(nowChannels);
  const ownByPlace = new Map(own.channels.map((channel) => [keyOf(channel), channel]));
  const changes: ByHand[] = [];
  const fieldsThat = (differ: (field: Field) => boolean) =>
    FIELDS.filter((field) => (model.storesPower || field !== 'power') && differ(field));
  const LACKS = 'its talkgroup or list is not in the plan';

  const labelFor = (there: Held) =>
    cutText(`Take ${placeText(model, there)} as the radio has it`, LABEL_LIMIT);
  const newGroups = (there: Held): PlainEdit[] => {
    const made = talkgroupFor(there, own)?.made;
    return made ? [{ name: 'put', kind: 'talkgroup', records: [made], before: null }] : [];
  };
  /** An edit, after the one that makes the talkgroup that it refers to, where the plan has none. */
  const calling = (edit: PlainEdit, there: Held): Edit => {
    const made = newGroups(there);
    return made.length > 0 ? { name: 'together', label: labelFor(there), edits: [...made, edit] } : edit;
  };
  /** Puts what the radio has at its place; what the plan has there waits left over then. */
  const put = (there: Held): Edit => {
    const { first, count } = slotsOf(model, there.list)!;
    const place = {
      name: 'place' as const,
      channels: [newChannel(there, newId(there), own, model)],
      placement: 'next-free' as const,
      at: first,
      range: { first, count },
      ...(there.list > 0 && { list: there.list }),
      slots: [there.slot],
    };
    const here = ownByPlace.get(keyOf(there));
    if (!here) return calling(place, there);
    return {
      name: 'together',
      label: labelFor(there),
      edits: [
        ...newGroups(there),
        { name: 'remove', ids: [here.id] },
        { name: 'put', kind: 'leftOver', records: [withoutSlot(here)], before: null },
        place,
      ],
    };
  };
  /** What the plan puts there likewise is settled, whichever channel it is. */
  const settled = (key: string, there: Held | undefined) => {
    const mine = nowByPlace.get(key);
    return there && mine
      ? fieldsThat((field) => !equal(valueOf(mine, field), valueOf(there, field))).length === 0
      : !there && !ownByPlace.has(key);
  };
  for (const [key, was] of then) {
    const there = held.get(key);
    if (settled(key, there)) continue;
    const at = { list: was.list, slot: was.slot };
    const mine = ownById.get(was.id);
    const mineNow = nowById.get(was.id);
    const place = placeText(model, was);
    if (!there) {
      // The plan has something there, or it would be settled: what was written, as it was or changed, or another channel by now.
      const here = ownByPlace.get(key)!;
      const hereNow = nowById.get(here.id);
      const kept =
        hereNow === undefined
          ? []
          : fieldsThat((field) => here.id !== was.id || !equal(valueOf(hereNow, field), valueOf(was, field)));
      changes.push({
        ...{ at, place, name: here.name, what: 'removed', radio: 'nothing there any more' },
        plan: kept.length > 0 ? inWords(hereNow!, kept) : here.id === was.id ? null : here.name,
        edit: { name: 'remove', ids: [here.id] },
      });
      continue;
    }
    const fields = fieldsThat((field) => !equal(valueOf(there, field), valueOf(was, field)));
    if (fields.length === 0) continue;
    if (!mine) {
      changes.push({
        ...{ at, place, name: there.name.trim(), what: 'changed', radio: inWords(there, fields) },
        plan: 'removed',
        edit: put(there),
      });
      continue;
    }
    // What the plan says likewise is settled.
    const open = fields.filter((field) => !mineNow || !equal(valueOf(mineNow, field), valueOf(there, field)));
    if (open.length === 0) continue;
    const otherwise = mineNow
      ? withTheirs(open).filter((field) => !equal(valueOf(mineNow, field), valueOf(was, field)))
      : [];
    changes.push({
      ...{ at, place, name: mine.name, what: 'changed', radio: inWords(there, open) },
      plan:
        otherwise.length > 0
          ? inWords(mineNow!, otherwise)
          : refersElsewhere(there, own, open)
            ? LACKS
            : null,
      edit: open.includes('talkgroup')
        ? calling(changing(mine.id, setOf(there, open, mine, own, model)), there)
        : changing(mine.id, setOf(there, open, mine, own, model)),
    });
  }
  for (const [key, there] of held) {
    if (then.has(key) || settled(key, there)) continue;
    const mine = ownByPlace.get(key);
    const mineNow = mine && nowById.get(mine.id);
    changes.push({
      at: { list: there.list, slot: there.slot },
      ...{ place: placeText(model, there), name: there.name.trim(), what: 'added', radio: whole(there) },
      plan: mine
        ? mineNow
          ? whole(mineNow)
          : mine.name
        : refersElsewhere(there, own, FIELDS)
          ? LACKS
          : null,
      edit: put(there),
    });
  }
  const taken = changes.filter(({ plan }) => plan === null).map(({ edit }) => edit);
  return { changes, all: asOne(taken), besides: compareBesides(before, radio, model) };
}

const changing = (id: ChannelId, set: ChannelSet): PlainEdit => ({ name: 'change', changes: [{ id, set }] });

/** Edits of one kind as one: what is changed, removed or placed in slots of its own goes into one edit of its kind and list. */
function asOne(whole: readonly Edit[]): Edit | null {
  const edits = whole.flatMap((edit): readonly Edit[] => (edit.name === 'together' ? edit.edits : [edit]));
  const groups = new Map(
    edits.flatMap((edit) =>
      edit.name === 'put' && edit.kind === 'talkgroup'
        ? edit.records.map((one) => [one.id, one] as const)
        : [],
    ),
  );
  const changes = edits.flatMap((edit) =>
    edit.name === 'change' && edit.kind === undefined ? edit.changes : [],
  );
  const ids = edits.flatMap((edit) => (edit.name === 'remove' && edit.kind === undefined ? edit.ids : []));
  const places = new Map<number, Extract<Edit, { name: 'place' }>>();
  for (const edit of edits) {
    if (edit.name !== 'place') continue;
    const before = places.get(edit.list ?? 0);
    places.set(
      edit.list ?? 0,
      before
        ? {
            ...before,
            channels: [...before.channels, ...edit.channels],
            slots: [...before.slots!, ...edit.slots!],
          }
        : edit,
    );
  }
  const all: PlainEdit[] = [
    ...(groups.size > 0
      ? [{ name: 'put' as const, kind: 'talkgroup' as const, records: [...groups.values()], before: null }]
      : []),
    // Slots are emptied first: what is new may be meant for one of them.
    ...(ids.length > 0 ? [{ name: 'remove' as const, ids }] : []),
    ...(changes.length > 0 ? [{ name: 'change' as const, changes }] : []),
    ...places.values(),
  ];
  if (all.length === 0) return null;
  if (all.length === 1) return all[0]!;
  const n = whole.length;
  return {
    name: 'together',
    label: `Take ${n === 1 ? '1 change' : `${n} changes`} of the radio`,
    edits: all,
  };
}
