import { sidesOf, type FittedDigital, type Model } from '../models';
import { settingsOf } from '../models/settings';
import {
  channelDefaults,
  EDGE_NAME_LIMIT,
  emptyLists,
  LEVELS,
  NAME_LIMIT,
  recordsOf,
  type Channel,
  type HeldValue,
  type Lists,
  type MakeIds,
  type Plan,
  type SettingValue,
} from '../plan';
import { withRecords } from '../settings';
import { capital, cutText } from '../text';
import type { RadioContent } from './image';

const named = (name: string, otherwise: string) => cutText(name.trim(), NAME_LIMIT) || otherwise;

/** One of each number from 1 to the last; a number that nothing has is made of nothing, so that the others keep theirs. */
const byNumber = <T extends { number: number }, Made>(
  of: readonly T[],
  make: (its: T[], number: number) => Made,
): Made[] =>
  Array.from({ length: Math.max(0, ...of.map(({ number }) => number)) }, (_, n) =>
    make(
      of.filter(({ number }) => number === n + 1),
      n + 1,
    ),
  );

/** The lists and settings of a plan that holds what a radio holds. Banks of the same number on two sides are one zone. */
export function planOfContent(
  content: RadioContent,
  model: Model,
  ids: MakeIds,
): Lists & Pick<Plan, 'settings'> {
  const talkgroups = content.talkgroups.map(({ name, address, call, number }) => ({
    id: ids.talkgroup(),
    name: named(name, `${call === 'private' ? 'Person' : 'Talkgroup'} ${number}`),
    number: address,
    call,
  }));
  const talkgroupOf = new Map(content.talkgroups.map(({ number }, at) => [number, talkgroups[at]!.id]));
  const receiveLists = byNumber(content.receiveLists, ([list], number) => ({
    id: ids.receiveList(),
    name: named(list?.name ?? '', `Receive list ${number}`),
    members: (list?.members ?? []).flatMap((one) => talkgroupOf.get(one) ?? []),
  }));
  const scanListIds = byNumber(content.scanLists, () => ids.scanList());
  const numbered = <Id>(of: readonly Id[], number: number | null | undefined) =>
    of[(number ?? 0) - 1] ?? null;
  const channels = content.channels.map((read): Channel => ({
    ...channelDefaults(read.rx),
    id: ids.channel(),
    list: read.list,
    slot: read.slot,
    name: cutText(read.name.trim(), NAME_LIMIT),
    tx: read.tx,
    access: read.digital
      ? { kind: 'dmr', colourCode: read.digital.colourCode, timeSlot: read.digital.timeSlot }
      : { kind: 'analogue', send: read.send, expect: read.expect },
    ...(read.digital && {
      talkgroup: talkgroupOf.get(read.digital.talkgroup ?? 0) ?? null,
      receiveList: numbered(
        receiveLists.map(({ id }) => id),
        read.digital.receiveList,
      ),
      politeness: politenessOf(read.digital, model),
    }),
    ...(read.scanList !== undefined && { scanList: numbered(scanListIds, read.scanList) }),
    mode: read.mode,
    power: read.power,
    scan: read.scan,
  }));
  const places = new Map(channels.map((channel) => [`${channel.list} ${channel.slot}`, channel.id]));
  const idsAt = (list: number, slots: readonly number[]) =>
    slots.flatMap((slot) => places.get(`${list} ${slot}`) ?? []);
  const sides = sidesOf(model);

  const word = model.zones?.word ?? 'zone';
  const zones = byNumber(content.zones, (banks, number) => ({
    id: ids.zone(),
    name: named(banks.find(({ name }) => name.trim() !== '')?.name ?? '', `${capital(word)} ${number}`),
    members: banks.flatMap(({ list, slots }) => idsAt(list, slots)),
    ...(model.zones?.knob && {
      knob: (banks[0]?.knob ?? []).map((slot) => ({ channel: places.get(`0 ${slot}`) ?? null })),
    }),
    ...(model.scanLists?.by === 'zone' && { scanList: numbered(scanListIds, banks[0]?.scanList) }),
  }));
  const skipSets = byNumber(content.skipSets, ([set], number) => ({
    id: ids.skipSet(),
    name: named(set?.name ?? '', `Skip set ${number}`),
    way: set?.way ?? ('all but' as const),
    members: (set?.slots ?? []).flatMap((slots, at) => idsAt(sides[at]!, slots)),
  }));
  const setUps = byNumber(content.setUps, ([setUp], number) => {
    return {
      id: ids.setUp(),
      name: named(setUp?.name ?? '', `Quick set-up ${number}`),
      sides: sides.map((list, at) => {
        const side = setUp?.sides[at];
        return {
          begins: side?.begins ?? ('dial' as const),
          zone: zones[(side?.zone ?? 0) - 1]?.id ?? null,
          start: side?.start != null ? (places.get(`${list} ${side.start}`) ?? null) : null,
          skipSet: skipSets[(side?.skipSet ?? 0) - 1]?.id ?? null,
          scanning: side?.scanning ?? false,
          shows: side?.shows ?? ('name' as const),
          autoDial: side?.autoDial ?? '',
        };
      }),
    };
  });
  const scanLists = byNumber(content.scanLists, ([list], number) => ({
    id: scanListIds[number - 1]!,
    name: named(list?.name ?? '', `Scan list ${number}`),
    members: idsAt(0, list?.slots ?? []),
    first: places.get(`0 ${list?.first}`) ?? null,
    second: places.get(`0 ${list?.second}`) ?? null,
    answers: list?.answers ?? model.scanLists!.answers[0]!,
    startsItself: list?.startsItself ?? false,
  }));
  const scanEdges = content.scanEdges.map(({ list, number, from, to }) => ({
    id: ids.scanEdge(),
    name: cutText(
      `${model.lists.length > 1 ? `${model.lists[list]!.name} ` : ''}edges ${number}`,
      EDGE_NAME_LIMIT,
    ),
    list,
    from,
    to,
  }));
  const lists: Lists = {
    ...emptyLists(),
    ...{ channels, zones, skipSets, scanEdges, setUps, talkgroups, receiveLists, scanLists },
  };
  return { ...lists, settings: settingsIn(content, model, lists) };
}

/** When a channel may send, as a plan has it. */
export const politenessOf = (
  { politeness, level }: FittedDigital,
  { digital }: Pick<Model, 'digital'>,
): Channel['politeness'] =>
  politeness === 'all'
    ? { to: politeness, level: level ?? digital?.levels?.from ?? LEVELS.usual }
    : { to: politeness };

/** The settings of a radio as its plan has them; `lists` are the records that the radio's numbers stand for. */
function settingsIn({ settings }: RadioContent, model: Model, lists: Lists): Plan['settings'] {
  const kinds = new Map(settingsOf(model).map(({ key, value }) => [key, value]));
  const set = Object.entries(settings).flatMap(([key, held]): [string, SettingValue][] => {
    const kind = kinds.get(key);
    const value =
      kind &&
      withRecords(kind, held as HeldValue, (to, number, list) => {
        const record =
          to === 'channel'
            ? lists.channels.find((one) => one.list === list && one.slot === number)
            : recordsOf(lists, to)[number - 1];
        return record ? { kind: to, id: record.id } : null;
      });
    return value === null || value === undefined ? [] : [[key, value]];
  });
  return set.length === 0 ? {} : { [model.id]: Object.fromEntries(set) };
}
