import { channelDefaults, makeId, type Channel } from '../plan';
import type { Rules } from '../radio';
import { readWishes, type FactOffer, type Wish } from '../table';
import { isListenOnly, type Candidate } from './choose';

const id = makeId('ch', new Uint8Array(12));

/** What of a station facts are asked of: the channel that it would become, with what only a station is as its tags. */
function asChannel({ entry, present, unfit }: Candidate): Channel {
  return {
    ...channelDefaults(entry.output),
    id,
    slot: 0,
    list: 0,
    name: entry.site,
    tx: isListenOnly(entry) ? null : entry.input,
    access: entry.access,
    mode: entry.mode,
    alwaysOn: entry.constant,
    note: entry.island,
    tags: [
      entry.service,
      entry.onAir ? 'on air' : 'off air',
      ...(entry.encrypted ? ['encrypted'] : []),
      ...(present ? [present.near ? 'nearly in' : 'in the plan'] : []),
      ...(unfit === null ? [] : ['unfit']),
    ],
    source: { directory: '', entry: entry.ref, service: entry.service, call: entry.call, place: entry.site },
  };
}

const tagged = (name: string, also: readonly string[], says: string, tag = name): FactOffer => ({
  name,
  also,
  says,
  holds: ({ tags = [] }) => tags.includes(tag),
});

/** Facts that only a station has. */
const STATION_FACTS: readonly FactOffer[] = [
  tagged('on air', ['on the air', 'active'], 'its directory says that it works'),
  tagged('off air', ['off the air', 'off'], 'its directory says that it does not work'),
  tagged('encrypted', [], 'nobody understands it without its key'),
  tagged('in the plan', ['present'], 'the plan has it'),
  tagged('nearly in', ['near double'], 'the plan has the same pair, with other access'),
  tagged('unfit', [], 'this radio cannot use it'),
  ...['amateur', 'marine', 'air', 'weather', 'public safety', 'business'].map((service) =>
    tagged(service, service === 'public safety' ? ['rescue'] : [], `its service is ${service}`),
  ),
];

/** Reads what is asked of stations, in words and facts, as the field over the channel table has it. */
export const readStationWishes = (typed: string, rules: Rules): Wish[] =>
  readWishes(typed, rules, STATION_FACTS);

/** The stations for which every wish holds. */
export function filterStations(
  candidates: readonly Candidate[],
  wishes: readonly Wish[],
  rules: Rules,
): Candidate[] {
  if (wishes.length === 0) return [...candidates];
  const context = { rules, severities: () => [], inZone: () => false, heard: new Map(), now: 0 };
  return candidates.filter((candidate) => {
    const channel = asChannel(candidate);
    return wishes.every(({ not, holds }) => holds(channel, context) !== not);
  });
}

/** By what a list of stations can be ordered. */
export const STATION_ORDERS = [
  'distance',
  'along',
  'bearing',
  'station',
  'receive',
  'mode',
  'access',
] as const;
export type StationOrder = (typeof STATION_ORDERS)[number];

const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Stations in an order to look at; what is equal stays as it was. */
export function inStationOrder(
  candidates: readonly Candidate[],
  { by, down }: { by: StationOrder; down: boolean },
): Candidate[] {
  const KEYS: Record<StationOrder, (candidate: Candidate) => number | string> = {
    distance: ({ distance }) => distance,
    along: ({ along, distance }) => along ?? distance,
    bearing: ({ bearing }) => bearing,
    station: ({ entry }) => entry.site,
    receive: ({ entry }) => entry.output,
    mode: ({ entry }) => entry.mode,
    access: ({ entry }) => JSON.stringify(entry.access),
  };
  const key = KEYS[by];
  const compare = (a: number | string, b: number | string) =>
    typeof a === 'number' && typeof b === 'number' ? a - b : collator.compare(String(a), String(b));
  return [...candidates].sort((a, b) => (down ? -1 : 1) * compare(key(a), key(b)));
}

/** The first `n` of each band among stations that this radio can use, in the order in which they are given; of all bands together where `each` is false. */
export function firstOf(
  candidates: readonly Candidate[],
  n: number,
  each: boolean,
  bandOf: (candidate: Candidate) => string,
): Candidate[] {
  const counted = new Map<string, number>();
  return candidates.filter((candidate) => {
    if (candidate.unfit !== null || (candidate.present && !candidate.present.near)) return false;
    const band = each ? bandOf(candidate) : '';
    const so = counted.get(band) ?? 0;
    counted.set(band, so + 1);
    return so < n;
  });
}
