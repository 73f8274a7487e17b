import { z } from 'zod';
import {
  bearing,
  distanceKm,
  formatFrequency,
  formatSquelch,
  LISTEN_ONLY_SERVICES,
  MODE_TRAITS,
  occupied,
  routeOf,
  windName,
  ALLOCATIONS,
  type Point,
  type Region,
} from '../radio';
import { transmitBand, type Model } from '../models';
import { atOnce, type Stepwise } from '../stepwise';
import { holdsSquelch, obstacles, squelches } from '../fit';
import {
  fillTemplate,
  nearDuplicate,
  onAirKey,
  channelDefaults,
  NAME_LIMIT,
  type Channel,
  type ChannelFields,
  type Plan,
} from '../plan';
import { ok, type Result } from '../result';
import { cutText } from '../text';
import type { Entry } from './entry';
import { stationSchema, type Station } from './station';

/** True for stations that are placed without a transmit side. */
export function isListenOnly(entry: Entry): boolean {
  return entry.input === null || (LISTEN_ONLY_SERVICES as readonly string[]).includes(entry.service);
}

/** Fields that a name template knows of an entry. */
export function nameFields(entry: Entry, region: Region): Record<string, string> {
  const span = occupied(entry.output, entry.mode);
  const band = ALLOCATIONS[region].find((a) => a.from <= span.from && a.to >= span.to)?.band ?? '';
  return {
    name: entry.site,
    call: entry.call,
    city: entry.site.split(' ')[0]!,
    island: entry.island,
    band,
    mode: entry.mode,
    output: formatFrequency(entry.output),
  };
}

/** The channel that an entry becomes, named by a template; power in mW. Fails where the template does. */
export function channelOf(
  entry: Entry,
  directory: string,
  template: string,
  region: Region,
  power: number,
): Result<ChannelFields> {
  const name = fillTemplate(template, nameFields(entry, region));
  if (!name.ok) return name;
  return ok({
    ...channelDefaults(entry.output),
    name: cutText(name.value, NAME_LIMIT).trim(),
    tx: isListenOnly(entry) ? null : entry.input,
    access: entry.access,
    mode: entry.mode,
    power,
    scan: !entry.constant,
    alwaysOn: entry.constant,
    source: {
      directory,
      entry: entry.ref,
      service: entry.service,
      ...(entry.call && { call: entry.call }),
      place: entry.site,
      lat: entry.lat,
      lon: entry.lon,
    },
  });
}

/** Why a radio cannot use an entry, in a few words; undefined where it can. */
export const whyNot = (entry: Entry, model: Model): string | undefined =>
  whyNotHeld(
    {
      rx: entry.output,
      tx: isListenOnly(entry) ? null : entry.input,
      mode: entry.mode,
      access: entry.access,
    },
    model,
  );

/** Why a radio cannot hold a channel wherever it stands, in a few words; undefined where it can. */
export function whyNotHeld(
  channel: Pick<Channel, 'rx' | 'tx' | 'mode' | 'access'>,
  model: Model,
): string | undefined {
  const asChannel = { ...channel, list: 0, slot: model.slots.first };
  const [obstacle] = obstacles(asChannel, model).sort((a, b) => ORDER.indexOf(a) - ORDER.indexOf(b));
  if (obstacle === 'receive range') return `does not tune ${formatFrequency(channel.rx)}`;
  if (obstacle === 'mode') return `has no ${MODE_TRAITS[channel.mode].words}`;
  if (obstacle === 'receive step') return `has no step for ${formatFrequency(channel.rx)}`;
  if (obstacle === 'transmit step') return `has no step for ${formatFrequency(asChannel.tx!)}`;
  if (obstacle === 'access') {
    const odd = squelches(channel.access).find((squelch) => !holdsSquelch(squelch, model))!;
    return `has no ${formatSquelch(odd)}`;
  }
  if (asChannel.tx !== null && !transmitBand(model, asChannel.tx))
    return `cannot send on ${formatFrequency(asChannel.tx)}`;
  return undefined;
}

const ORDER = ['mode', 'receive range', 'receive step', 'transmit step', 'access', 'slot'];

export const candidateSchema = stationSchema.extend({
  /** From the place that was asked for, or from the route, km. */
  distance: z.number(),
  /** What has been travelled along the route where it is nearest, km; null where no route was asked for. */
  along: z.number().nullable(),
  bearing: z.number(),
  /** 16-point name of the bearing. */
  wind: z.string(),
  /** Why this radio cannot use it. */
  unfit: z.string().nullable(),
  /** The channel and slot where the plan already has it, and whether the rest agrees or only the frequencies. */
  present: z.object({ slot: z.int(), near: z.boolean() }).nullable(),
});
/** An entry as Find shows it. */
export type Candidate = z.infer<typeof candidateSchema>;

/** Where is searched: around a point, or along a route in the order of travel. */
export type Where = { kind: 'around'; point: Point } | { kind: 'along'; places: readonly Point[] };

/** Stations that are compared in one step. */
const STEP = 50;

/** Compares stations with a place or route, a model and a plan; nearest first, along a route in the order of travel. In steps, since there may be thousands. */
export function* candidatesInSteps(
  stations: readonly Station[],
  where: Where,
  model: Model,
  plan: Plan | null,
): Stepwise<Candidate[]> {
  const byReceive = new Map<number, Channel[]>();
  const onAir = new Map<string, Channel>();
  for (const channel of plan?.channels ?? []) {
    const key = onAirKey(channel);
    if (!onAir.has(key)) onAir.set(key, channel);
    const others = byReceive.get(channel.rx);
    if (others) others.push(channel);
    else byReceive.set(channel.rx, [channel]);
  }
  const route = where.kind === 'along' ? routeOf(where.places) : null;
  const from = where.kind === 'around' ? where.point : where.places[0]!;
  const found: Candidate[] = [];
  for (const [n, station] of stations.entries()) {
    if (n % STEP === STEP - 1) yield;
    const { entry } = station;
    const like = {
      rx: entry.output,
      tx: isListenOnly(entry) ? null : entry.input,
      mode: entry.mode,
      access: entry.access,
    };
    const same = onAir.get(onAirKey(like));
    const near = same ?? byReceive.get(entry.output)?.find((channel) => nearDuplicate(channel, like));
    const beside = route?.beside(entry);
    const degrees = bearing(from, entry);
    found.push({
      ...station,
      distance: beside?.distance ?? distanceKm(from, entry),
      along: beside?.along ?? null,
      bearing: degrees,
      wind: windName(degrees),
      unfit: whyNot(entry, model) ?? null,
      present: near ? { slot: near.slot, near: !same } : null,
    });
  }
  return found.sort(
    (a, b) =>
      (a.along ?? a.distance) - (b.along ?? b.distance) ||
      a.distance - b.distance ||
      a.entry.output - b.entry.output,
  );
}

/** The same at once. */
export const candidates = (...given: Parameters<typeof candidatesInSteps>): Candidate[] =>
  atOnce(candidatesInSteps(...given));
