import { z } from 'zod';
import {
  canHold,
  checksumsHold,
  imageBytes,
  ownedMask as maskOf,
  partStart,
  readField,
  readTables,
  settingBytes,
  writeTables,
  type CodecContext,
  type FieldValue,
  type Layout,
  type ReadTables,
  type Row,
  type Tables,
} from '../format';
import { fittedSetUpSchema, noContent, sidesOf, type Content, type Model } from '../models';
import { formatOf } from '../models/formats';
import { settingsOf } from '../models/settings';
import { fail, ok, type Result } from '../result';
import { heldKind, isValue, sameValue, type AnyValue } from '../settings';
import { listRows, listsOf, once, withoutLost } from './digital';
import { channelOf, rowOf } from './rows';

/** What a radio holds, worked out of a plan or read from bytes. Settings that are not named stay as the radio has them. */
export interface RadioContent extends Content {
  settings: Record<string, FieldValue>;
  /** Settings whose bytes are no value of theirs, with these bytes as `0xF7`. They survive a write. */
  unknown?: Record<string, string>;
}

/** What is written: kinds that are not named are emptied where the format has them. */
export type ToWrite = Pick<RadioContent, 'channels' | 'settings'> & Partial<RadioContent>;

export const contextOf = ({ tones, codes, names }: Model): CodecContext => ({
  tones,
  codes,
  characters: names.characters,
});

/** The length of an image of that model. */
export const bytesOf = (model: Pick<Model, 'id'>): number => imageBytes(formatOf(model));

/** True where the checksums that an image carries are right. */
export const imageHolds = (image: Uint8Array, model: Pick<Model, 'id'>): boolean =>
  checksumsHold(image, formatOf(model));

/** The name of the table of a list of channels, and of what belongs to it. */
const tableOf = (what: string, list: number) => (list === 0 ? what : `${what} ${list}`);

const SIDE_FIELDS = ['begins', 'zone', 'start', 'skipSet', 'scanning', 'shows', 'autoDial'] as const;

/** Rows of what stands beside the channels, by table; `no` is the row's number where lines of text carry it. */
function tablesOf(content: Content, model: Model, settings: Tables['settings'], layouts: readonly Layout[]) {
  const tables: Tables['tables'] = {};
  const add = (table: string, number: number, fields: Row['fields']) =>
    (tables[table] ??= []).push({ number, fields: { ...fields, no: number } });
  for (const { list, number, name, slots, knob, scanList = null } of content.zones)
    add(tableOf('zones', list), number, { name, slots: knob ?? slots, scanList });
  for (const [table, number, fields] of listRows(content)) add(table, number, fields);
  for (const { number, name, way, slots } of content.skipSets)
    add('skipSets', number, {
      name,
      way,
      ...Object.fromEntries(slots.map((of, list) => [`slots ${list}`, of])),
    });
  for (const { list, number, from, to } of content.scanEdges)
    add(tableOf('scanEdges', list), number, { from, to });
  for (const { number, name, sides } of content.setUps)
    add('setUps', number, {
      name,
      ...Object.fromEntries(
        sides.flatMap((side, list) => SIDE_FIELDS.map((field) => [`${field} ${list}`, side[field]])),
      ),
    });
  for (const list of model.lists.keys()) {
    const layout = layouts.find(({ table }) => table === tableOf('channels', list));
    if (!layout) continue;
    const zones = content.zones.filter((zone) => zone.list === list);
    const among = {
      model,
      settings,
      zonesOf: (slot: number) => zones.flatMap(({ number, slots }) => (slots.includes(slot) ? [number] : [])),
    };
    tables[layout.table] = content.channels
      .filter((channel) => channel.list === list)
      .map((channel) => rowOf(channel, layout, among));
  }
  return tables;
}

/** The settings of a content that the format can hold; others are not written. */
const heldSettings = (settings: RadioContent['settings'], model: Model) =>
  Object.fromEntries(Object.entries(settings).filter(([key, value]) => holdsSetting(model, key, value)));

/** True where a radio of the model can have the value of a setting; of records their numbers. */
export function holdsSetting(model: Model, key: string, value: FieldValue): boolean {
  const placed = formatOf(model).settings.find((one) => one.key === key);
  const setting = settingsOf(model).find((one) => one.key === key);
  if (!placed || !setting) return false;
  return (
    isValue(heldKind(setting.value), value as AnyValue, model.names.characters) &&
    canHold(placed.codec, value, contextOf(model))
  );
}

const asHex = (bytes: Uint8Array) =>
  `0x${Array.from(bytes, (byte) => byte.toString(16).toUpperCase().padStart(2, '0')).join('')}`;

/** What was read of the settings of a model: those with values, and by their bytes those without. An empty field has none. */
function readSettings(
  image: Uint8Array,
  model: Model,
  { settings, unknown }: Pick<ReadTables, 'settings' | 'unknown'>,
): Required<Pick<RadioContent, 'settings' | 'unknown'>> {
  const format = formatOf(model);
  const known = new Map(settingsOf(model).map(({ key, value }) => [key, heldKind(value)]));
  const read: Required<Pick<RadioContent, 'settings' | 'unknown'>> = {
    settings: {},
    unknown: Object.fromEntries(Object.entries(unknown).map(([key, bytes]) => [key, asHex(bytes)])),
  };
  for (const [key, value] of Object.entries(settings)) {
    const placed = format.settings.find((one) => one.key === key)!;
    if (value === null || isValue(known.get(key)!, value as AnyValue, model.names.characters))
      read.settings[key] = value;
    else read.unknown[key] = asHex(settingBytes(image, format, placed));
  }
  return read;
}

/** The value of a setting in an image, without reading the rest of it; undefined where its bytes are no value, or the model has no such setting. */
export function settingIn(image: Uint8Array, model: Model, key: string): FieldValue | undefined {
  const format = formatOf(model);
  const placed = format.settings.find((one) => one.key === key);
  if (!placed || image.length !== imageBytes(format)) return undefined;
  const read = readField(image, partStart(format, placed.part), placed.codec, contextOf(model));
  return read.ok && (read.value === null || holdsSetting(model, key, read.value)) ? read.value : undefined;
}

/**
 * Writes a content into a copy of `base`, a read-out of the same unit. Only bits that the format names are changed;
 * slots that are not in the content are emptied. The checksum is made anew.
 */
export function encodeImage(toWrite: ToWrite, base: Uint8Array, model: Model): Uint8Array {
  const format = formatOf(model);
  const content = { ...noContent(), ...toWrite };
  const settings = heldSettings(content.settings, model);
  const tables = tablesOf(content, model, settings, format.layouts);
  return writeTables({ tables, settings }, base, format, contextOf(model));
}

/**
 * Reads a content from an image. Fails, saying where, on a wrong length or checksum; a slot or setting whose bytes make
 * no sense is left out and named in the note. Of one that is known to be `damaged` what can be read is read.
 */
export function decodeImage(image: Uint8Array, model: Model, { damaged = false } = {}): Result<RadioContent> {
  if (image.length !== bytesOf(model))
    return fail(`A read-out of a ${model.name} has ${bytesOf(model)} bytes; this one has ${image.length}.`);
  if (!damaged && !imageHolds(image, model))
    return fail('The checksum does not hold: the read-out is damaged or half written.');
  const read = readTables(image, formatOf(model), contextOf(model), { damaged });
  if (!read.ok) return read;
  const { tables, odd } = read.value;
  const { settings, unknown } = readSettings(image, model, read.value);
  for (const [key, bytes] of Object.entries(unknown))
    odd.push(`${settingsOf(model).find((one) => one.key === key)!.name} (${bytes})`);
  const among = { model, settings, zonesOf: () => [] };
  const channels = model.lists.flatMap((_, list) =>
    (tables[tableOf('channels', list)] ?? []).flatMap((row) => {
      const channel = channelOf(row, list, among);
      if (channel.ok) return [channel.value];
      odd.push(`slot ${row.number} (${channel.reason})`);
      return [];
    }),
  );
  const besides = besidesOf(tables, model, channels, odd);
  return ok(
    {
      channels: channels.map((channel) => withoutLost(channel, besides)),
      ...besides,
      settings,
      ...(Object.keys(unknown).length > 0 && { unknown }),
    },
    odd.length > 0 ? `Not understood and left as it is: ${odd.join(', ')}.` : undefined,
  );
}

/** What stands beside the channels; what names slots that are not in use names them no more. */
function besidesOf(
  tables: Tables['tables'],
  model: Model,
  channels: RadioContent['channels'],
  odd: string[],
): Omit<Content, 'channels'> {
  const used = model.lists.map(
    (_, list) => new Set(channels.flatMap((one) => (one.list === list ? [one.slot] : []))),
  );
  const inUse = (list: number, slots: FieldValue | undefined) =>
    Array.isArray(slots) ? (slots as number[]).filter((slot) => used[list]?.has(slot)) : [];
  const content = noContent();
  for (const list of sidesOf(model)) {
    const rows = tables[tableOf('channels', list)] ?? [];
    for (const { number, fields } of tables[tableOf('zones', list)] ?? []) {
      // A radio keeps the members with the bank, or the banks with each channel.
      const slots = fields.slots
        ? inUse(list, fields.slots)
        : inUse(
            list,
            rows.flatMap((row) => ((row.fields.zones as number[]).includes(number) ? [row.number] : [])),
          );
      content.zones.push({ list, number, name: String(fields.name), ...orderOf(slots, fields, model) });
    }
    for (const { number, fields } of tables[tableOf('scanEdges', list)] ?? [])
      if (typeof fields.from === 'number' && typeof fields.to === 'number')
        content.scanEdges.push({ list, number, from: fields.from, to: fields.to });
  }
  for (const { number, fields } of tables.skipSets ?? [])
    content.skipSets.push({
      number,
      name: String(fields.name),
      way: fields.way === 'only' ? 'only' : 'all but',
      slots: sidesOf(model).map((list) => inUse(list, fields[`slots ${list}`])),
    });
  for (const { number, fields } of tables.setUps ?? []) {
    const sides = sidesOf(model).map((list) =>
      Object.fromEntries(SIDE_FIELDS.map((field) => [field, fields[`${field} ${list}`]])),
    );
    const setUp = fittedSetUpSchema.safeParse({ number, name: fields.name, sides });
    if (setUp.success) content.setUps.push(setUp.data);
  }
  Object.assign(
    content,
    listsOf(tables, (slots) => inUse(0, slots as FieldValue), odd),
  );
  if (model.scanLists?.by === 'zone')
    for (const zone of content.zones)
      if (!content.scanLists.some(({ number }) => number === zone.scanList)) zone.scanList = null;
  const { channels: _, ...besides } = content;
  return besides;

  /** The channels of a zone, and what its knob turns to: there an empty position is a 0. */
  function orderOf(slots: number[], fields: Row['fields'], { zones, scanLists }: Model) {
    const list = scanLists?.by === 'zone' && { scanList: fields.scanList as number | null };
    if (!zones?.knob) return { slots: once(slots), ...list };
    const knob = (fields.slots as number[]).map((slot) => (used[0]!.has(slot) ? slot : 0));
    while (knob.length > 0 && knob[knob.length - 1] === 0) knob.pop();
    return { slots: once(slots), knob, ...list };
  }
}

/** The settings, by their names, that one image has otherwise than another and after whose change the model wants to be switched off and on. */
export function restartFor(before: Uint8Array, after: Uint8Array, model: Model): string[] {
  const [was, is] = [before, after].map((image) => decodeImage(image, model));
  if (!was?.ok || !is?.ok) return [];
  return settingsOf(model)
    .filter(({ key, restart }) => restart && !sameValue(valueIn(was.value, key), valueIn(is.value, key)))
    .map(({ name }) => name);
}

const valueIn = ({ settings }: RadioContent, key: string) => settings[key] as AnyValue | undefined;

/** A mask of the bits that are ours to write in an image of a layout version (the newest), the checksum among them; all others must survive a write. */
export const ownedMask = (model: Pick<Model, 'id'>, version?: number): Uint8Array =>
  maskOf(formatOf(model), version);

export const imageComparisonSchema = z.object({
  /** Bytes compared, and those of them that differ; volatile areas are in neither. */
  compared: z.int(),
  different: z.array(z.int()),
  volatile: z.object({ bytes: z.int(), different: z.int() }),
});
/** How two images agree, area by area. Bytes of volatile areas are counted apart: the radio changes them itself. */
export type ImageComparison = z.infer<typeof imageComparisonSchema>;

/** The stretches of an image that the radio changes itself. */
export const volatileAreas = (model: Pick<Model, 'id'>) =>
  formatOf(model)
    .areas.filter(({ owner }) => owner === 'volatile')
    .map((area) => ({ ...area, from: partStart(formatOf(model), area.part) + area.from }));

/** Compares what was sent with what was read back, byte for byte. */
export function compareImages(sent: Uint8Array, back: Uint8Array, model: Pick<Model, 'id'>): ImageComparison {
  const result: ImageComparison = { compared: 0, different: [], volatile: { bytes: 0, different: 0 } };
  const volatile = new Uint8Array(bytesOf(model));
  for (const area of volatileAreas(model)) volatile.fill(1, area.from, area.from + area.bytes);
  for (let at = 0; at < volatile.length; at++) {
    if (volatile[at]) {
      result.volatile.bytes++;
      if (sent[at] !== back[at]) result.volatile.different++;
    } else {
      result.compared++;
      if (sent[at] !== back[at]) result.different.push(at);
    }
  }
  return result;
}
