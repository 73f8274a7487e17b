import * as fc from './property.test.kit';
import { blankImage, type FieldValue } from './format';
import { bytesOf, type RadioContent } from './image';
import type { Lists } from './image/digital';
import {
  sidesOf,
  slotsOf,
  storedShift,
  type FittedChannel,
  type FittedDigital,
  type FittedZone,
  type Model,
} from './models';
import { formatOf } from './models/formats';
import type { Squelch } from './radio';

/** Generators of what radios of a model can hold; not used by the application. */

/** Records as JSON makes them. */
const record = <T>(model: { [K in keyof T]: fc.Arbitrary<T[K]> }): fc.Arbitrary<T> =>
  fc.record<T>(model, { noNullPrototype: true });

/** Whatever the settings of a model can be, by its format. */
export const anySettingsOf = (model: Model): fc.Arbitrary<Record<string, FieldValue>> =>
  fc.record(
    Object.fromEntries(
      formatOf(model).settings.map(({ key, codec }): [string, fc.Arbitrary<FieldValue>] => {
        switch (codec.kind) {
          case 'choice':
            return [key, fc.constantFrom(...codec.values)];
          case 'word':
            return [key, fc.constantFrom(...codec.words.map(({ value }) => value))];
          case 'bcd':
            return [key, fc.integer({ min: 1, max: 99_999 }).map((n) => n * codec.unit)];
          case 'whole':
            return [key, fc.integer({ min: 1, max: 0xfffcdf })];
          case 'digits':
            return [key, fc.integer({ min: 1, max: 10 ** codec.bytes - 1 }).map((n) => n * codec.unit)];
          default:
            return [key, fc.constantFrom('', 'HELLO', 'Q7KET', 'A-B/C.')];
        }
      }),
    ),
    { noNullPrototype: true },
  );

const anyNameOf = ({ names }: Model, length: number) =>
  fc
    .array(fc.constantFrom(...names.characters), { maxLength: length })
    .map((letters) => letters.join('').trimEnd());

/** What a digital channel of a model can be, its references aside. */
const anyDigitalOf = ({ digital }: Model): fc.Arbitrary<FittedDigital> =>
  fc
    .tuple(
      fc.nat(15),
      fc.constantFrom(1 as const, 2 as const),
      fc.constantFrom(...(digital?.politeness ?? (['impolite'] as const))),
      fc.integer({ min: digital?.levels?.from ?? 0, max: digital?.levels?.to ?? 0 }),
    )
    .map(([colourCode, timeSlot, politeness, level]) => ({
      ...{ colourCode, timeSlot, talkgroup: null, receiveList: null, politeness },
      level: politeness === 'all' && digital?.levels ? level : null,
    }));

/** Channels of one list of a model, `least` so many, 60 at most, where the radio is set like that. */
function anyChannelsIn(
  model: Model,
  list: number,
  settings: Record<string, FieldValue>,
  least: number,
): fc.Arbitrary<FittedChannel[]> {
  const { names, bands, tones, codes, modes, powers } = model;
  const slots = slotsOf(model, list)!;
  const home = model.lists[list]!.holds === 'home';
  const frequency = (ranges: readonly { from: number; to: number }[]) =>
    fc.oneof(
      ...ranges.map(({ from, to }) =>
        fc.integer({ min: Math.ceil(from / 5_000), max: Math.floor(to / 5_000) }).map((n) => n * 5_000),
      ),
    );
  const aTone = record({ kind: fc.constant('tone' as const), tone: fc.constantFrom(...tones) });
  const held: fc.Arbitrary<Squelch> =
    codes.length === 0
      ? aTone
      : fc.oneof(
          aTone,
          record({
            kind: fc.constant('code' as const),
            code: fc.constantFrom(...codes),
            inverted: fc.boolean(),
          }),
        );
  const tx = (rx: number) => {
    const stored = storedShift(model, settings, rx);
    const ways = [
      fc.constant(null),
      fc.constant(rx),
      frequency(bands.flatMap(({ transmit }) => transmit ?? [])),
    ];
    return fc.oneof(...ways, ...(stored ? [fc.constantFrom(rx + stored, rx - stored)] : []));
  };
  const splits = (rx: number, sent: number | null) =>
    model.storedShifts.length > 0 &&
    sent !== null &&
    sent !== rx &&
    Math.abs(sent - rx) !== storedShift(model, settings, rx);
  return fc
    .uniqueArray(
      fc.integer({ min: slots.first, max: slots.first + slots.count - 1 }).chain((slot) =>
        frequency(home ? [bands[slot - 1]!.receive] : bands.map(({ receive }) => receive)).chain((rx) =>
          record({
            list: fc.constant(list),
            slot: fc.constant(slot),
            name: anyNameOf(model, names.length),
            rx: fc.constant(rx),
            tx: tx(rx),
            send: fc.option(held),
            expect: fc.option(held),
            mode: fc.constantFrom(...modes),
            power: fc.constantFrom(
              ...(model.storesPower ? powers : powers.slice(0, 1)).map(({ milliwatts }) => milliwatts),
            ),
            scan: home ? fc.constant(true) : fc.boolean(),
          }),
        ),
      ),
      {
        minLength: least,
        maxLength: Math.max(least, Math.min(slots.count, 60)),
        selector: ({ slot }) => slot,
      },
    )
    .chain((channels) => fc.tuple(fc.constant(channels), ...channels.map(() => anyDigitalOf(model))))
    .map(([channels, ...digital]) =>
      channels
        .sort((a, b) => a.slot - b.slot)
        .map(({ send, expect, ...channel }, at) => ({
          ...channel,
          // What is digital has no tones.
          ...(channel.mode === 'DMR' && model.digital
            ? { send: null, expect: null, digital: digital[at]! }
            : { send, expect: model.oneTone ? expect && send : expect }),
          ...(model.scanLists?.by === 'channel' && { scanList: null }),
          ...(splits(channel.rx, channel.tx) && { split: true as const }),
        })),
    );
}

/** Whatever a model can hold in its first list; `least` so many. */
export const anyChannelsOf = (model: Model, least = 0): fc.Arbitrary<FittedChannel[]> =>
  anyChannelsIn(model, 0, {}, least);

/** Whatever a radio of a model can hold, all that stands beside its channels and its settings among it. */
export function anyContentOf(model: Model): fc.Arbitrary<RadioContent> {
  const sides = sidesOf(model);
  const characters = [...model.names.characters];
  const name = (length: number) =>
    anyNameOf({ ...model, names: { length, characters: characters.join('') } }, length);
  return anySettingsOf(model)
    .chain((settings) =>
      fc
        .tuple(...model.lists.map((_, list) => anyChannelsIn(model, list, settings, list === 0 ? 4 : 0)))
        .map((lists) => ({ channels: lists.flat(), settings })),
    )
    .chain(({ channels, settings }) => {
      const some = (list: number) =>
        fc
          .shuffledSubarray(channels.filter((one) => one.list === list).map(({ slot }) => slot))
          .map((slots) => slots.sort((a, b) => a - b));
      const numbers = (has: { count: number } | null, least = 0) =>
        fc
          .shuffledSubarray(
            Array.from({ length: has?.count ?? 0 }, (_, n) => n + 1),
            { minLength: Math.min(least, has?.count ?? 0) },
          )
          .map((list) => list.sort((a, b) => a - b));
      const each = <T>(of: fc.Arbitrary<number[]>, make: (number: number) => fc.Arbitrary<T>) =>
        of.chain((list): fc.Arbitrary<T[]> => fc.tuple(...list.map(make)));
      const perSide = <T>(
        has: { count: number } | null,
        make: (list: number, number: number) => fc.Arbitrary<T>,
      ) =>
        fc.tuple(...sides.map((list) => each(numbers(has), (n) => make(list, n)))).map((made) => made.flat());
      const optional = (most: number) => fc.option(fc.integer({ min: 1, max: Math.max(1, most) }));
      return record({
        channels: fc.constant(channels),
        settings: fc.constant(settings),
        zones: perSide(model.zones, (list, number) =>
          record({
            list: fc.constant(list),
            number: fc.constant(number),
            name: name(model.zones!.name),
            slots: some(list),
          }).chain((zone) => anyOrderOf(zone, model)),
        ),
        skipSets: each(numbers(model.skipSets), (number) =>
          record({
            number: fc.constant(number),
            name: name(model.skipSets!.name),
            way: fc.constantFrom('all but' as const, 'only' as const),
            slots: fc.tuple(...sides.map(some)),
          }),
        ),
        scanEdges: perSide(model.scanEdges, (list, number) =>
          record({
            list: fc.constant(list),
            number: fc.constant(number),
            from: fc.integer({ min: 1, max: 40_000 }).map((n) => n * 10_000),
            to: fc.integer({ min: 1, max: 40_000 }).map((n) => n * 10_000),
          }),
        ),
        setUps: each(numbers(model.setUps), (number) =>
          record({
            number: fc.constant(number),
            name: name(model.setUps!.name),
            sides: fc.tuple(
              ...sides.map(() =>
                record({
                  begins: fc.constantFrom('dial' as const, 'home' as const, 'memory' as const),
                  zone: optional(model.zones?.count ?? 1),
                  start: optional(model.slots.count),
                  skipSet: optional(model.skipSets?.count ?? 1),
                  scanning: fc.boolean(),
                  shows: fc.constantFrom('name' as const, 'frequency' as const),
                  autoDial: fc.constantFrom('', '0123', '0A*', '12#'),
                }),
              ),
            ),
          }),
        ),
      }).chain((content) => linked(content, model));
    });
}

/** A zone as a radio with an order of its own, or a knob, has it. */
function anyOrderOf(zone: FittedZone, { zones }: Model): fc.Arbitrary<FittedZone> {
  if (!zones?.ordered) return fc.constant(zone);
  const most = Math.min(zone.slots.length, zones.knob ?? zones.members ?? zone.slots.length);
  return fc
    .tuple(fc.shuffledSubarray(zone.slots, { maxLength: most }), fc.array(fc.boolean(), { maxLength: 16 }))
    .map(([slots, empty]) => {
      if (!zones.knob) return { ...zone, slots };
      const knob: number[] = [];
      for (const [at, slot] of slots.entries()) {
        // A position that is left empty, while there is room for the rest.
        if (empty[at] && knob.length + slots.length - at < zones.knob) knob.push(0);
        knob.push(slot);
      }
      return { ...zone, slots, knob };
    });
}

/** A content with talkgroups and lists, and channels and zones that refer to them, in any order and to one another. */
function linked(content: Omit<RadioContent, keyof Lists>, model: Model): fc.Arbitrary<RadioContent> {
  const { digital, scanLists } = model;
  const none = fc.constant<RadioContent>({ ...content, talkgroups: [], receiveLists: [], scanLists: [] });
  if (!digital && !scanLists) return none;
  const text = (length: number) => anyNameOf(model, length);
  const slots = content.channels.map(({ slot }) => slot);
  const numbers = (count: number) =>
    fc
      .uniqueArray(fc.integer({ min: 1, max: count }), { maxLength: 12 })
      .map((list) => list.sort((a, b) => a - b));
  const rows = <T>(count: number, make: (number: number) => fc.Arbitrary<T>) =>
    numbers(count).chain((list): fc.Arbitrary<T[]> => fc.tuple(...list.map(make)));
  const one = (of: readonly number[]) =>
    of.length === 0 ? fc.constant(null) : fc.option(fc.constantFrom(...of), { freq: 4 });
  return rows(digital!.talkgroups.count, (number) =>
    record({
      number: fc.constant(number),
      name: text(digital!.talkgroups.name),
      address: fc.oneof(fc.integer({ min: 1, max: 0xfffcdf }), fc.constant(0xffffff)),
      call: fc.constantFrom(...digital!.talkgroups.calls),
    }),
  ).chain((talkgroups) => {
    const groups = talkgroups.map(({ number }) => number);
    const receive = rows(digital!.receiveLists.count, (number) =>
      record({
        number: fc.constant(number),
        name: text(digital!.receiveLists.name),
        members: fc.shuffledSubarray(groups, {
          maxLength: Math.min(groups.length, digital!.receiveLists.members),
        }),
      }),
    );
    const scan = rows(scanLists!.count, (number) =>
      record({
        number: fc.constant(number),
        name: text(scanLists!.name),
        slots: fc.shuffledSubarray(slots, { maxLength: Math.min(slots.length, scanLists!.members) }),
        first: one(slots),
        second: scanLists!.second ? one(slots) : fc.constant(null),
        answers: fc.constantFrom(...scanLists!.answers),
        startsItself: fc.boolean(),
      }),
    );
    return fc.tuple(receive, scan).chain(([receiveLists, lists]) => {
      const anyOf = (of: readonly { number: number }[]) => one(of.map(({ number }) => number));
      const refs = content.channels.map(() => fc.tuple(one(groups), anyOf(receiveLists), anyOf(lists)));
      return fc
        .tuple(fc.tuple(...refs), fc.tuple(...content.zones.map(() => anyOf(lists))))
        .map(([of, ofZones]) => ({
          ...content,
          ...{ talkgroups, receiveLists, scanLists: lists },
          channels: content.channels.map((channel, at): FittedChannel => {
            const [talkgroup, receiveList, scanList] = of[at]!;
            return {
              ...channel,
              ...(channel.digital && { digital: { ...channel.digital, talkgroup, receiveList } }),
              ...(scanLists!.by === 'channel' && { scanList }),
            };
          }),
          zones: content.zones.map((zone, at) =>
            scanLists!.by === 'zone' ? { ...zone, scanList: ofZones[at]! } : zone,
          ),
        }));
    });
  });
}

/** Any bytes of the length of an image; lines of text end as lines do. */
export const anyImageOf = (model: Model): fc.Arbitrary<Uint8Array> => {
  const empty = blankImage(formatOf(model));
  // Of a large image a stretch is drawn, of a length that no table has, and repeated.
  const drawn = Math.min(bytesOf(model), 32_749);
  return fc
    .uint8Array({ minLength: drawn, maxLength: drawn, size: 'max' })
    .map((stretch) => {
      const image = new Uint8Array(bytesOf(model));
      for (let at = 0; at < image.length; at += drawn) image.set(stretch.subarray(0, image.length - at), at);
      return image;
    })
    .map((image) =>
      formatOf(model).container.kind === 'lines'
        ? image.map((byte, at) => (empty[at] === 0x0d || empty[at] === 0x0a ? empty[at] : byte))
        : image,
    );
};
