import equal from 'fast-deep-equal';
import { contentToWrite, type WriteContent } from '../check';
import {
  decodeImage,
  encodeImage,
  withUnitValues,
  type FieldValue,
  type RadioContent,
  type UnitValues,
} from '../image';
import { settingFromRadio } from '../fit';
import type { FittedChannel, Model } from '../models';
import { settingsOf } from '../models/settings';
import {
  applyEdit,
  type HeldValue,
  type ChannelId,
  type Edit,
  type PlainEdit,
  type Plan,
  type SettingValue,
} from '../plan';
import { ok, type Result } from '../result';
import { valueWords } from '../settings';
import { cutText } from '../text';
import { changedByHand, LABEL_LIMIT, type ByHand } from './by-hand';
import { byPlace, keyOf, type Place } from './by-place';

/**
 * A plan and a radio that follow each other. Both have agreed on something; since then either may have gone on, for a moment or for as long
 * as the line was gone. What the radio's keys did becomes an edit of the plan where the plan has not gone another way; where it has, the
 * place is left as it is on both sides until somebody decides.
 */

/** What both had when they last agreed: the plan, and the radio's image that is made of it. */
export interface Agreed {
  plan: Plan;
  /** The values of this unit, which replace what the plan sets. */
  values?: UnitValues;
  image: Uint8Array;
}

/**
 * What both had last, where the line went before the radio could say whether it has what was `sent`: a change is in it whole or not at
 * all, so that one place of it tells. Where the keys have changed all of them since, it is taken for not there, and is asked about.
 */
export function agreedAfter(agreed: Agreed, sent: Agreed, image: Uint8Array, model: Model): Agreed {
  const [were, wanted, are] = [agreed.image, sent.image, image].map((one) => {
    const held = decodeImage(one, model);
    return held.ok ? byPlace(held.value.channels) : new Map<string, FittedChannel>();
  });
  const changed = [...new Set([...were!.keys(), ...wanted!.keys()])].filter(
    (key) => !equal(were!.get(key), wanted!.get(key)),
  );
  return changed.some((key) => equal(are!.get(key), wanted!.get(key))) ? sent : agreed;
}

/** What was done on the radio's keys since both agreed, for the plan as it is now. */
export interface FromRadio {
  /** All that the plan has not changed otherwise, as one edit; null where that is nothing. */
  edit: Edit | null;
  /** Values of this unit that were changed, which become the unit's and not the plan's; null where none was. */
  values: UnitValues | null;
  /** The same in words, one for each place. */
  said: string[];
  /** What the edit comes of. */
  free: ByHand[];
  /** Where both have gone another way: to be decided. */
  apart: ByHand[];
  /** What both agree on once the edit is taken. */
  agreed: Agreed;
}

/**
 * What a radio that holds `image` says to a plan since both agreed. `called` is what sentences call the radio. Fails where the image
 * cannot be read.
 */
export function fromRadio(
  agreed: Agreed,
  image: Uint8Array,
  own: Plan,
  model: Model,
  called: string,
  newId: (place: Place) => ChannelId,
  values: UnitValues = NO_VALUES,
): Result<FromRadio> {
  const before = decodeImage(agreed.image, model);
  if (!before.ok) return before;
  const after = decodeImage(image, model);
  if (!after.ok) return after;
  const [were, are] = [byPlace(before.value.channels), byPlace(after.value.channels)];
  // Only what the radio itself changed counts: a place that the plan held back, or left to be decided, is no news.
  const same = (key: string) => equal(were.get(key), are.get(key));
  const channels = [
    ...contentToWrite(agreed.plan, model).channels.filter((channel) => same(keyOf(channel))),
    ...after.value.channels.filter((channel) => !same(keyOf(channel))),
  ];
  const { changes, all } = changedByHand(
    agreed.plan,
    { before: before.value, radio: { ...after.value, channels } },
    own,
    model,
    newId,
  );
  const free = changes.filter(({ plan }) => plan === null);
  const settings = settingsOnKeys(
    { were: before.value.settings, are: after.value.settings },
    { plan: agreed.plan, values: agreed.values ?? NO_VALUES },
    { plan: own, values },
    model,
  );
  const done = free.map(({ place, name, radio }) => `${place} ${name}: ${radio}`.trim());
  const said = [...done, ...settings.said];
  const edits = [...plainEdits(all), ...plainEdits(settings.edit)];
  const edit = edits.length === 0 ? null : { name: 'together' as const, label: '', edits };
  const then = edit && applyEdit(agreed.plan, edit);
  return ok({
    edit:
      edit &&
      labelled(edit, `On the keys of ${called}: ${said.length === 1 ? said[0]! : `${said.length} changes`}`),
    values: settings.values,
    said,
    free,
    apart: changes.filter(({ plan }) => plan !== null),
    agreed: {
      plan: then?.ok ? then.value : agreed.plan,
      values: { ...agreed.values, ...settings.values },
      image,
    },
  });
}

const plainEdits = (edit: Edit | null): PlainEdit[] =>
  edit === null ? [] : edit.name === 'together' ? edit.edits : [edit as PlainEdit];

const labelled = (edit: Edit, label: string): Edit => ({
  name: 'together',
  label: cutText(label, LABEL_LIMIT),
  edits: plainEdits(edit),
});

type Held = RadioContent['settings'];
const NO_VALUES: UnitValues = {};

/**
 * Settings that were changed on the radio's keys: those that the plan sets become the plan's, where it has not set them otherwise meanwhile;
 * a unit's own become values of that unit, and never the plan's, which other radios get too. What is left to the radio is only said.
 */
function settingsOnKeys(
  { were, are }: { were: Held; are: Held },
  then: Pick<Agreed, 'plan'> & { values: UnitValues },
  own: Pick<Agreed, 'plan'> & { values: UnitValues },
  model: Model,
) {
  // A value that Veridon does not know is said, and stays on the radio.
  const changed = settingsOf(model).filter(({ key }) => key in are && !equal(were[key], are[key]));
  if (changed.length === 0) return { said: [], edit: null, values: null };
  const [wanted, wants] = [then, own].map(
    ({ plan, values }) => contentToWrite(withUnitValues(plan, model, values), model).settings,
  );
  const taken: Record<string, SettingValue> = {};
  const takenByUnit: Record<string, SettingValue> = {};
  const said = changed.map(({ key, name, value, scope }) => {
    const words = (held: FieldValue | undefined) => valueWords(value, held as HeldValue);
    const now = `${name}: ${words(are[key])}`;
    if (wants![key] === undefined || equal(wants![key], are[key])) return now;
    const ofUnit = scope === 'unit';
    if (!equal(wanted![key], wants![key]))
      return `${now} on the radio; ${ofUnit ? 'the value of this unit is' : 'the plan sets'} ${words(wants![key])} by now`;
    const mine = settingFromRadio(own.plan, model, key, are[key] as HeldValue);
    if (mine === null) return `${now} on the radio; the plan has no such record`;
    (ofUnit ? takenByUnit : taken)[key] = mine;
    return now;
  });
  const edit: Edit | null =
    Object.keys(taken).length > 0 ? { name: 'set', settings: { [model.id]: taken } } : null;
  return { said, edit, values: Object.keys(takenByUnit).length > 0 ? takenByUnit : null };
}

/**
 * The image that a radio which holds `image` is to have of a plan, with the values of its own. A place that is to be decided stays as the radio has it; so does one whose
 * channel is held back by a stop: it is not emptied for a typing error.
 */
export function toRadio(
  own: Plan,
  image: Uint8Array,
  apart: readonly Pick<ByHand, 'at'>[],
  model: Model,
  values: UnitValues = NO_VALUES,
): Result<Uint8Array> {
  const held = decodeImage(image, model);
  if (!held.ok) return held;
  const content: WriteContent = contentToWrite(withUnitValues(own, model, values), model);
  const stopped = new Set(content.heldBack.map(({ id }) => id));
  const left = new Set([
    ...apart.map(({ at }) => keyOf(at)),
    ...own.channels.filter(({ id }) => stopped.has(id)).map(keyOf),
  ]);
  const channels = [
    ...content.channels.filter((channel) => !left.has(keyOf(channel))),
    ...held.value.channels.filter((channel) => left.has(keyOf(channel))),
  ].sort((a, b) => a.list - b.list || a.slot - b.slot);
  return ok(encodeImage({ ...content, channels }, image, model));
}

/** Those that are still to be decided: where the plan says by now what the radio has, nothing is. */
export function stillApart(
  apart: readonly ByHand[],
  own: Plan,
  image: Uint8Array,
  model: Model,
  values: UnitValues = NO_VALUES,
): ByHand[] {
  return apart.filter((one) => {
    const others = apart.filter((other) => other !== one);
    const decided = toRadio(own, image, others, model, values);
    return !decided.ok || decided.value.some((byte, at) => byte !== image[at]);
  });
}
