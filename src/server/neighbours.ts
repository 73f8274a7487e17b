import { placesOf, type Neighbour } from '../core/check';
import type { Plan } from '../core/plan';
import { distanceKm, type Point } from '../core/radio';
import { registerEntries } from './directories';
import { giveUpAfter } from './fetch-json';

/** The circle in which a plan is used, with as much around it as stations disturb each other over. */
export interface Area extends Point {
  radiusKm: number;
}

/** How long what the register said is believed, and how long it is left alone after it failed, ms. */
const KEPT_MS = 3_600_000;
const LEFT_ALONE_MS = 60_000;
/** Nobody waits longer for it: Check does without, ms. */
const patienceMs = () => Number(process.env.VERIDON_NEIGHBOUR_PATIENCE_MS ?? 1500);
const REACH_KM = 150;
const MOST_AREAS = 200;

interface Kept {
  at: number;
  until: number;
  list: readonly Neighbour[];
}
const kept = new Map<string, Kept>();
const asking = new Map<string, Promise<readonly Neighbour[]>>();

// Whole half degrees and steps of 50 km, so that a plan that gains a station nearby asks for nothing new.
const half = (degrees: number) => Math.round(degrees * 2) / 2;

/** Where a plan is used, by the places of its channels; null where it knows none. */
export function areaOf(plan: Plan): Area | null {
  const places = placesOf(plan.channels);
  if (places.length === 0) return null;
  const middle = (of: (place: Point) => number) =>
    places.reduce((sum, place) => sum + of(place), 0) / places.length;
  const centre = { lat: half(middle(({ lat }) => lat)), lon: half(middle(({ lon }) => lon)) };
  const furthest = Math.max(...places.map((place) => distanceKm(centre, place)));
  return { ...centre, radiusKm: Math.min(600, Math.ceil((furthest + REACH_KM) / 50) * 50) };
}

const keyOf = ({ lat, lon, radiusKm }: Area) => `${lat} ${lon} ${radiusKm}`;

/** What is known of an area without asking; `at` is when it was asked, 0 where it never was. */
export function knownNeighbours(area: Area | null): { at: number; list: readonly Neighbour[] } {
  return (area && kept.get(keyOf(area))) ?? { at: 0, list: [] };
}

/**
 * The repeaters that the Relay Register knows where a plan is used. Asks it once an hour; where it fails or takes long there
 * are none, and Check says what it can without.
 */
export async function neighboursOf(area: Area | null): Promise<readonly Neighbour[]> {
  if (!area) return [];
  const key = keyOf(area);
  const known = kept.get(key);
  if (known && known.until > Date.now()) return known.list;
  const under = asking.get(key) ?? lookUp(area).finally(() => asking.delete(key));
  asking.set(key, under);
  return under;
}

async function lookUp(area: Area): Promise<readonly Neighbour[]> {
  const keep = (list: readonly Neighbour[], forMs: number) => {
    const at = Date.now();
    kept.set(keyOf(area), { at, until: at + forMs, list });
    if (kept.size > MOST_AREAS) kept.delete(kept.keys().next().value!);
    return list;
  };
  try {
    const { entries } = await registerEntries({ ...area, service: 'amateur' }, giveUpAfter(patienceMs()));
    return keep(
      entries.flatMap(({ call, site, output, input, access, lat, lon, onAir, groups }): Neighbour[] =>
        input === null || input === output || !onAir
          ? []
          : [
              {
                name: call === '' ? site : `${site} ${call}`,
                ...{ output, input, access, lat, lon },
                ...(groups && { groups: groups.map(({ number, name, slot }) => ({ number, name, slot })) }),
              },
            ],
      ),
      KEPT_MS,
    );
  } catch {
    return keep(knownNeighbours(area).list, LEFT_ALONE_MS);
  }
}
