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
import { cutText } from '../text';
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

  // A number without a bank is an empty zone, so that the others keep theirs.
  const last = Math.max(0, ...content.zones.map(({ number }) => number));
  const zones = Array.from({ length: last }, (_, n) => {
    const banks = content.zones.filter(({ number }) => number === n + 1);
    return {
      id: ids.zone(),
      name: named(
        banks.find(({ name }) => name.trim() !== '')?.name ?? '',
        `${model.zones?.word ?? 'Zone'} ${n + 1}`,
      ),
      members: banks.flatMap(({ list, slots }) => idsAt(list, slots)),
    };
  });
  const lastSet = Math.max(0, ...content.skipSets.map(({ number }) => number));
  const skipSets = Array.from({ length: lastSet }, (_, n) => {
    const set = content.skipSets.find(({ number }) => number === n + 1);
    return {
      id: ids.skipSet(),
      name: named(set?.name ?? '', `Skip set ${n + 1}`),
      way: set?.way ?? ('all but' as const),
      members: (set?.slots ?? []).flatMap((slots, at) => idsAt(sides[at]!, slots)),
    };
  });
  const lastSetUp = Math.max(0, ...content.setUps.map(({ number }) => number));
  const setUps = Array.from({ length: lastSetUp }, (_, n) => {
    const setUp = content.setUps.find(({ number }) => number === n + 1);
    return {
      id: ids.setUp(),
      name: named(setUp?.name ?? '', `Quick set-up ${n + 1}`),
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
  return { channels, zones, skipSets, scanEdges, setUps, settings: settingsOf(content, model) };
}

function settingsOf({ settings }: RadioContent, model: Model): Plan['settings'] {
  const set = Object.entries(settings).filter(
    (one): one is [string, SettingValue] => one[1] !== null && typeof one[1] !== 'object',
  );
  return set.length === 0 ? {} : { [model.id]: Object.fromEntries(set) };
}
