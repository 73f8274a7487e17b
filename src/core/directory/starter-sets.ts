import type { Model } from '../models';
import { channelDefaults, type ChannelFields, type ChannelId, type NewChannel } from '../plan';
import {
  additionsOf,
  ALLOCATIONS,
  MARINE_CHANNELS,
  RADIO_REGULATIONS,
  ORRIN_OFFICE,
  MARINE_SOURCE,
  type Allocation,
  type Mode,
  type Region,
  type Source,
} from '../radio';
import { whyNotHeld } from './choose';

/** What a set is for; in this order they are offered. */
export const SET_KINDS = [
  'calling',
  'weather',
  'simplex',
  'home',
  'licence-free',
  'marine',
  'air',
  'own',
] as const;
export type SetKind = (typeof SET_KINDS)[number];

/** A ready group of channels. */
export interface StarterSet {
  id: string;
  kind: SetKind;
  name: string;
  /** Whose stations they are: `amateur`, `weather`. */
  service: string;
  source: Source;
  channels: readonly ChannelFields[];
}

const hz = (mhz: number) => Math.round(mhz * 1e6);
const IARU: Record<Exclude<Region, 'orrin'>, Source> = {
  itu1: { title: 'IARU Region 1 band plans', edition: '2016, VHF and up 2020' },
  itu2: { title: 'IARU Region 2 band plan', edition: '2016' },
  itu3: { title: 'IARU Region 3 band plans', edition: '2019' },
};
const SOCIETY: Source = { title: 'Orrin Radio Society, band plan', edition: '2026' };

const call = (name: string, mhz: number, mode: Mode = 'FM'): ChannelFields => ({
  ...channelDefaults(hz(mhz)),
  name,
  mode,
});
const listen = (name: string, rx: number, mode: Mode, scan = true): ChannelFields => ({
  ...channelDefaults(rx),
  ...{ name, mode, scan, tx: null },
});
/** Channels of one frequency each at even steps, named by band and frequency. */
const row = (band: string, from: number, stepKhz: number, count: number): ChannelFields[] =>
  Array.from({ length: count }, (_, n) => {
    const rx = hz(from) + Math.round(n * stepKhz * 1000);
    return call(`${band} ${(rx / 1e6).toFixed(4).replace(/0$/, '')}`, rx / 1e6);
  });

const CALLING: Record<Region, readonly ChannelFields[]> = {
  orrin: [call('Calling 2 m', 145.5), call('Calling 70 cm', 433.5), call('Calling 6 m', 51.51)],
  itu1: [
    call('Calling 2 m', 145.5),
    call('Calling 70 cm', 433.5),
    call('Calling 6 m', 51.51),
    call('Calling 10 m', 29.6),
    call('Sideband 2 m', 144.3, 'USB'),
    call('Sideband 70 cm', 432.2, 'USB'),
  ],
  itu2: [
    call('Calling 2 m', 146.52),
    call('Calling 70 cm', 446),
    call('Calling 6 m', 52.525),
    call('Calling 10 m', 29.6),
    call('Sideband 2 m', 144.2, 'USB'),
    call('Sideband 70 cm', 432.1, 'USB'),
  ],
  itu3: [call('Calling 10 m', 29.6), call('Sideband 6 m', 50.11, 'USB'), call('Sideband 2 m', 144.1, 'USB')],
};

/** 162.400 to 162.550 MHz, a broadcast each; scanning would never come past one. */
const WEATHER_NAMES = ['North', 'South', 'East', 'West', 'Quill', 'Hestin', 'Farrow'];
const weather = (names: readonly string[]): ChannelFields[] =>
  names.map((name, n) => listen(name, 162_400_000 + n * 25_000, 'FM', false));
const WEATHER: Partial<Record<Region, { source: Source; channels: readonly ChannelFields[] }>> = {
  orrin: { source: ORRIN_OFFICE, channels: weather(WEATHER_NAMES.map((name) => `Weather ${name}`)) },
  itu2: {
    source: RADIO_REGULATIONS,
    channels: weather(WEATHER_NAMES.map((_, n) => `Weather ${(162.4 + n * 0.025).toFixed(3)}`)),
  },
};

const SIMPLEX: Partial<Record<Region, readonly ChannelFields[]>> = {
  orrin: [...row('2 m', 145.2, 25, 12), ...row('70 cm', 433.4, 25, 8)],
  itu1: [...row('2 m', 145.2125, 12.5, 23), ...row('70 cm', 433.4, 12.5, 16)],
  itu2: [...row('2 m', 146.4, 15, 13), ...row('2 m', 147.42, 15, 11)],
};

/** Digital stations of one's own at home: the same frequency both ways, and as little power as crosses a garden. */
const atHome = (name: string, mhz: number): ChannelFields => ({
  ...call(name, mhz, 'DMR'),
  ...{ access: { kind: 'dmr', colourCode: 1, timeSlot: 2 }, power: 500, scan: false },
});
const HOME: Partial<Record<Region, readonly ChannelFields[]>> = {
  orrin: [atHome('Hotspot', 438.025), atHome('Second hotspot', 438.0375), atHome('Home station', 438.05)],
};

/** Marine channels that ships use most: distress and calling first. */
const MAIN_MARINE = [16, 6, 8, 9, 10, 12, 13, 14, 67, 69, 71, 72, 73, 74, 77];
const marine = (numbers: readonly number[]): ChannelFields[] =>
  numbers.flatMap((number) => {
    const channel = MARINE_CHANNELS.find((one) => one.number === number);
    // The coast is heard; on channels of one frequency both.
    return channel ? [listen(`Marine ${String(number).padStart(2, '0')}`, channel.coast, 'FM')] : [];
  });

const AIR: readonly ChannelFields[] = [
  listen('Air emergency', 121_500_000, 'AM'),
  listen('Air rescue', 123_100_000, 'AM'),
  listen('Aircraft', 123_450_000, 'AM'),
];

/** What allocations give everybody in FM, a channel each, with the power that they allow. */
const freeChannels = (allocations: readonly Allocation[]): ChannelFields[] =>
  allocations
    .filter(({ service, modes }) => service === 'licence-free' && modes?.some((mode) => /FM$/.test(mode)))
    .flatMap(({ channels = [], modes = [], power }) =>
      channels.map((rx) => ({
        ...channelDefaults(rx),
        mode: modes.includes('NFM') ? ('NFM' as const) : ('FM' as const),
        power: power.none ?? 500,
      })),
    )
    .map((channel, n) => ({ ...channel, name: `Free ${String(n + 1).padStart(2, '0')}` }));

/** The sets of a region, in the order of `SET_KINDS`. */
export function starterSets(region: Region): StarterSet[] {
  const bandPlan = region === 'orrin' ? SOCIETY : IARU[region];
  const set = (
    kind: SetKind,
    name: string,
    service: string,
    source: Source,
    channels: readonly ChannelFields[],
    id: string = kind,
  ): StarterSet[] => (channels.length === 0 ? [] : [{ id, kind, name, service, source, channels }]);
  const { source: weatherSource, channels: weatherChannels } = WEATHER[region] ?? {
    source: RADIO_REGULATIONS,
    channels: [],
  };
  return [
    ...set('calling', 'Calling', 'amateur', bandPlan, CALLING[region]),
    ...set('weather', 'Weather', 'weather', weatherSource, weatherChannels),
    ...set('simplex', 'Simplex', 'amateur', bandPlan, SIMPLEX[region] ?? []),
    ...set('home', 'Home station and hotspot', 'amateur', bandPlan, HOME[region] ?? []),
    ...set('licence-free', 'Licence-free', 'licence-free', ORRIN_OFFICE, freeChannels(ALLOCATIONS[region])),
    ...additionsOf(region).flatMap(({ id, name, source, allocations }) =>
      set('licence-free', name, 'licence-free', source, freeChannels(allocations), id),
    ),
    ...set('marine', 'Marine, the main ones', 'marine', MARINE_SOURCE, marine(MAIN_MARINE)),
    ...set(
      'marine',
      'Marine, all',
      'marine',
      MARINE_SOURCE,
      marine(MARINE_CHANNELS.map(({ number }) => number)),
      'marine-all',
    ),
    ...set('air', 'Air', 'air', { title: 'ICAO Annex 10', edition: '2020' }, AIR),
  ];
}

/** The channels of a set as new ones of a plan; those of a set of one's own keep where they came from. */
export const channelsOfSet = ({ id, service, channels }: StarterSet, makeId: () => ChannelId): NewChannel[] =>
  channels.map((channel, n) => ({
    ...channel,
    id: makeId(),
    source: channel.source ?? { directory: 'starter-set', entry: `${id} ${n + 1}`, service },
  }));

/** What of a set a radio can hold, and what keeps the others out, most common first. */
export function heldOf(
  { channels }: Pick<StarterSet, 'channels'>,
  model: Model,
): { held: ChannelFields[]; reasons: [string, number][] } {
  const reasons = new Map<string, number>();
  const held = channels.filter((channel) => {
    const reason = whyNotHeld(channel, model)?.replace(/ \d[\d.]*$/, ' there');
    if (reason !== undefined) reasons.set(reason, (reasons.get(reason) ?? 0) + 1);
    return reason === undefined;
  });
  return { held, reasons: [...reasons].sort((a, b) => b[1] - a[1]) };
}

/** A set of one's own, of channels of a plan. */
export const ownSet = (id: string, name: string, channels: readonly ChannelFields[]): StarterSet => ({
  ...{ id, name, kind: 'own', service: 'amateur', channels },
  source: { title: 'Made here', edition: 'your own' },
});
