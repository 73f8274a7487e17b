import { sidesOf, type Model } from '../models';
import {
  channelDefaults,
  EDGE_NAME_LIMIT,
  NAME_LIMIT,
  type Channel,
  type ChannelId,
  type Lists,
  type Plan,
  type ScanEdgeId,
  type SettingValue,
  type SetUpId,
  type SkipSetId,
  type ZoneId,
} from '../plan';
import { capital, cutText } from '../text';
import type { RadioContent } from './image';

/** Makes a new id of a kind; core has no randomness of its own. */
export interface MakeIds {
  channel: () => ChannelId;
  zone: () => ZoneId;
  skipSet: () => SkipSetId;
  scanEdge: () => ScanEdgeId;
  setUp: () => SetUpId;
}

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
  const channels = content.channels.map((read): Channel => ({
    ...channelDefaults(read.rx),
    id: ids.channel(),
    list: read.list,
    slot: read.slot,
    name: cutText(read.name.trim(), NAME_LIMIT),
    tx: read.tx,
    access: { kind: 'analogue', send: read.send, expect: read.expect },
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
  return { channels, leftOver: [], zones, skipSets, scanEdges, setUps, settings: settingsOf(content, model) };
}

function settingsOf({ settings }: RadioContent, model: Model): Plan['settings'] {
  const set = Object.entries(settings).filter(
    (one): one is [string, SettingValue] => one[1] !== null && typeof one[1] !== 'object',
  );
  return set.length === 0 ? {} : { [model.id]: Object.fromEntries(set) };
}
