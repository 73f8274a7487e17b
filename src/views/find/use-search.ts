'use client';

import { useQuery } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import type { PlanId } from '@/core/plan';
import {
  daysOf,
  daysOfStation,
  filterStations,
  inStationOrder,
  readStationWishes,
  type Candidate,
  type StationOrder,
} from '@/core/directory';
import {
  inUnit,
  locator,
  parsePoint,
  parseRoute,
  routeText,
  simplifiedTo,
  toKm,
  type DistanceUnit,
  type Point,
} from '@/core/radio';
import { call } from '@/api/call';
import { directoryApi, ROUTE_LIMIT, type Place } from '@/api/directories';
import { bandOf } from './bands';
import { splitRoute } from './split-route';
import { distancePreference } from './distance-preference';

/** A place with what people call it. */
export interface Named extends Point {
  name: string;
}

/** What is searched: a circle around a place, or what lies along a route, which may be cut into days. */
export type Query =
  | { kind: 'around'; place: Named; km: number }
  | { kind: 'along'; places: Named[]; km: number; days: number };

/** Of all that is known before anything is asked for: the middle of the Isles, and how far they reach, km. */
const EVERYTHING = { lat: 52.1, lon: -30, km: 450 };
/** Most stations that are fetched at once. */
const MOST = 3000;
const RULES = { region: 'orrin' as const };

const nameOf = ({ lat, lon }: Point) => locator({ lat, lon });

/** The search as it stands in the address bar, so that it can be kept, sent and come back to. */
function written(query: Query | null, show: string): Record<string, string> {
  const parts: Record<string, string> = {};
  if (query?.kind === 'around') {
    parts.at = routeText([query.place]);
    parts.name = query.place.name;
  } else if (query) {
    parts.route = routeText(query.places);
    parts.name = query.places.map(({ name }) => name).join(';');
    if (query.days > 1) parts.days = String(query.days);
  }
  if (query) parts.km = String(Math.round(query.km * 10) / 10);
  if (show.trim() !== '') parts.show = show;
  return parts;
}

/** A search with its places as exact as the address bar has them: what is sent to somebody else finds the same. */
const asWritten = (query: Query): Query => {
  const exact = <P extends Point>(place: P): P => ({ ...place, ...parseRoute(routeText([place]))![0]! });
  return query.kind === 'around'
    ? { ...query, place: exact(query.place) }
    : { ...query, places: query.places.map(exact) };
};

/** Reads it again; null where it says no search, or none that can be read. */
function readQuery(parts: URLSearchParams): Query | null {
  const km = Number(parts.get('km'));
  if (!(km >= 1 && km <= 1000)) return null;
  const names = (parts.get('name') ?? '').split(';');
  const places = parseRoute(parts.get('at') ?? parts.get('route') ?? '');
  if (!places || places.length > ROUTE_LIMIT) return null;
  const named = places.map((place, at) => ({ ...place, name: names[at]?.slice(0, 60) || nameOf(place) }));
  if (parts.has('at')) return named.length === 1 ? { kind: 'around', place: named[0]!, km } : null;
  if (named.length < 2) return null;
  const days = Number(parts.get('days') ?? 1);
  return { kind: 'along', places: named, km, days: days >= 1 && days <= 14 ? Math.floor(days) : 1 };
}

/** What is asked for, what the directories answer, and what of it is shown. */
export function useSearch(
  planId: PlanId | null,
  /** The plan's revision, so that no answer about an older one is shown; null until it is known. */
  revision: number | null,
  firstUnit: DistanceUnit,
) {
  const [way, setWay] = useState<'around' | 'along'>('around');
  const [place, setPlace] = useState('Ketterby');
  const [stops, setStops] = useState('');
  const [unit, setUnit] = useState(firstUnit);
  const [radius, setRadius] = useState(unit === 'km' ? '40' : '25');
  const [corridor, setCorridor] = useState(unit === 'km' ? '15' : '10');
  const [days, setDays] = useState('1');
  const [query, setQuery] = useState<Query | null>(null);
  const [trouble, setTrouble] = useState('');
  const [near, setNear] = useState<string[]>([]);
  const [show, setShow] = useState('');
  const [band, setBand] = useState('all');
  const [order, setOrder] = useState<{ by: StationOrder; down: boolean } | null>(null);
  const [showUnfit, setShowUnfit] = useState(false);
  const [showPresent, setShowPresent] = useState(false);
  const [sources, setSources] = useState<readonly string[] | null>(null);
  const [again, setAgain] = useState(0);
  const [ready, setReady] = useState(false);
  /** Places of a route of which there are too few yet. */
  const [drafted, setDrafted] = useState<Named[]>([]);

  const take = (wanted: Query) => {
    const next = asWritten(wanted);
    setTrouble('');
    setNear([]);
    setOrder(null);
    setQuery(next);
    setWay(next.kind);
    if (next.kind === 'around') {
      setPlace(next.place.name);
      setRadius(String(Math.round(inUnit(next.km, unit))));
    } else {
      setStops(next.places.map(({ name }) => name).join(' > '));
      setCorridor(String(Math.round(inUnit(next.km, unit))));
      setDays(String(next.days));
    }
  };

  // What the address bar says is searched when the page opens.
  useEffect(() => {
    const parts = new URLSearchParams(window.location.search);
    const found = readQuery(parts);
    setShow(parts.get('show') ?? '');
    // eslint-disable-next-line effects/no-derived-state -- the address is read once; it is no state of this page
    if (found) take(found);
    setReady(true);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- once, as it stood
  }, []);
  useEffect(() => {
    if (!ready) return;
    const address = new URL(window.location.href);
    for (const part of ['at', 'route', 'name', 'km', 'days', 'show']) address.searchParams.delete(part);
    for (const [part, text] of Object.entries(written(query, show))) address.searchParams.set(part, text);
    window.history.replaceState(window.history.state, '', address);
  }, [ready, query, show]);

  const places = useQuery({
    queryKey: ['places', place],
    queryFn: () => call(directoryApi.places, { query: { q: place } }),
    enabled: place.trim().length > 1,
    staleTime: 60_000,
    retry: false,
  });
  const directories = useQuery({
    queryKey: ['directories'],
    queryFn: () => call(directoryApi.directories),
    staleTime: 10_000,
  });
  const asked = sources ?? directories.data?.directories.map(({ id }) => id) ?? null;

  const answer = useQuery({
    queryKey: ['stations', query, planId, revision, asked, again],
    queryFn: () =>
      call(directoryApi.stations, {
        query: {
          ...(query === null
            ? { lat: EVERYTHING.lat, lon: EVERYTHING.lon, radius: EVERYTHING.km }
            : query.kind === 'around'
              ? { lat: query.place.lat, lon: query.place.lon, radius: query.km }
              : { route: routeText(query.places), radius: query.km }),
          ...(asked && { sources: asked.join(',') }),
          ask: again > 0 ? 'again' : 'yes',
          most: MOST,
          plan: planId ?? undefined,
        },
      }),
    enabled: ready && asked !== null && (planId === null || revision !== null),
    retry: false,
    staleTime: Infinity,
    // Distances and bearings are those of a place: an answer stays only until the same search is answered again.
    placeholderData: (last, lastQuery) =>
      JSON.stringify(lastQuery?.queryKey[1]) === JSON.stringify(query) ? last : undefined,
  });

  const kmOf = (text: string, most: number): number | null => {
    const km = toKm(Number(text.replace(',', '.')), unit);
    if (km >= 1 && km <= most) return km;
    setTrouble(`Type a distance from 1 to ${Math.floor(inUnit(most, unit))} ${unit}.`);
    return null;
  };

  /** The place that was typed, by degrees, locator or the gazetteer; null where it is none, which is said. */
  const findPlace = async (typed: string): Promise<Named | null> => {
    const point = parsePoint(typed);
    if (point.ok) return { ...point.value, name: typed };
    let list: Place[];
    let meant: string | null;
    try {
      ({ places: list, meant } = await call(directoryApi.places, { query: { q: typed } }));
    } catch (error) {
      setTrouble((error as Error).message);
      return null;
    }
    const wanted = (meant ?? typed).toLowerCase();
    const exact =
      list.find((one) => one.name.toLowerCase() === wanted) ?? (list.length === 1 ? list[0] : undefined);
    if (exact) return { lat: exact.lat, lon: exact.lon, name: exact.name };
    // Those that hold what was typed, or those nearest in spelling: one of them is one click away.
    setNear(list.slice(0, 6).map(({ name }) => name));
    setTrouble(
      list.length > 0
        ? `The gazetteer has no “${typed}”. Did you mean:`
        : `The gazetteer has no “${typed}”, nor anything like it. Type degrees such as 52.06, -29.84 or a locator such as HO52bb.`,
    );
    return null;
  };

  const search = async () => {
    setNear([]);
    setTrouble('');
    if (way === 'around') {
      const km = kmOf(radius, 500);
      if (km === null) return;
      const found = await findPlace(place.trim());
      if (found) take({ kind: 'around', place: found, km });
      return;
    }
    const km = kmOf(corridor, 200);
    if (km === null) return;
    const typed = splitRoute(stops);
    if (typed.length < 2)
      return setTrouble(
        'Name two places or more, such as Ketterby > Garrowick > Norrast, or press them on the map.',
      );
    const found: Named[] = [];
    for (const one of typed) {
      // A place that was pressed on the map is called by its square: as exact as it was pressed.
      const before = query?.kind === 'along' ? query.places.find(({ name }) => name === one) : undefined;
      const next = before ?? (await findPlace(one));
      if (!next) return;
      found.push(next);
    }
    const n = Number(days);
    take({ kind: 'along', places: found, km, days: n >= 1 && n <= 14 ? Math.floor(n) : 1 });
  };

  const { candidates: all, routeKm = null } = answer.data ?? {};
  const cut = useMemo(
    () => (query?.kind === 'along' && routeKm !== null ? daysOf(routeKm, query.days) : []),
    [query, routeKm],
  );
  const wishes = useMemo(() => readStationWishes(show, RULES), [show]);
  const shown = useMemo(() => {
    const found = filterStations(all ?? [], wishes, RULES).filter(
      (candidate) =>
        (showUnfit || candidate.unfit === null) &&
        (showPresent || candidate.present === null || candidate.present.near) &&
        (band === 'all' || bandOf(candidate) === band),
    );
    return order ? inStationOrder(found, order) : found;
  }, [all, wishes, showUnfit, showPresent, band, order]);

  return {
    way,
    setWay,
    place,
    setPlace,
    stops,
    setStops,
    radius,
    setRadius,
    corridor,
    setCorridor,
    days,
    setDays,
    unit,
    /** Shows distances in the unit from now on, and turns those that were typed into it. */
    setUnit: (next: DistanceUnit) => {
      distancePreference.keep(next);
      const turned = (text: string) => {
        const typed = Number(text.replace(',', '.'));
        return text.trim() !== '' && Number.isFinite(typed)
          ? String(Math.round(inUnit(toKm(typed, unit), next)))
          : text;
      };
      setRadius(turned(radius));
      setCorridor(turned(corridor));
      setUnit(next);
    },
    query,
    /** Nothing is asked for yet: what is shown is all that is known. */
    open: query === null,
    search,
    take,
    near,
    /** Searches around one of the places that may have been meant. */
    searchNear: async (name: string) => {
      setNear([]);
      setTrouble('');
      const found = await findPlace(name);
      const km = kmOf(radius, 500);
      if (found && km !== null && way === 'around') take({ kind: 'around', place: found, km });
      else if (found)
        setStops(
          splitRoute(stops)
            .map((one) => (one.toLowerCase() === name.toLowerCase() ? name : one))
            .join(' > '),
        );
    },
    /** Searches around a place of the map; the radius as it was typed where none is drawn. */
    aroundPoint: (point: Point, km: number | null) => {
      const wide = km ?? kmOf(radius, 500);
      if (wide !== null)
        take({
          kind: 'around',
          place: { ...point, name: nameOf(point) },
          km: Math.min(500, Math.max(1, wide)),
        });
    },
    /** A route as it was drawn on the map; names of places that stayed are kept. */
    alongPoints: (points: Point[]) => {
      const known = query?.kind === 'along' ? query.places : drafted;
      const named = simplifiedTo(points, ROUTE_LIMIT).map(
        (point): Named =>
          known.find(({ lat, lon }) => lat === point.lat && lon === point.lon) ?? {
            ...point,
            name: nameOf(point),
          },
      );
      setDrafted(named);
      const km = kmOf(corridor, 200);
      if (named.length >= 2 && km !== null)
        take({ kind: 'along', places: named, km, days: Math.max(1, Number(days) || 1) });
      else {
        setQuery(null);
        setStops(named.map(({ name }) => name).join(' > '));
      }
    },
    /** Says what kept something from being searched. */
    say: setTrouble,
    clear: () => {
      setQuery(null);
      setDrafted([]);
    },
    trouble: trouble || (answer.error ? answer.error.message : ''),
    busy: answer.isFetching,
    places: places.data?.places ?? [],
    directories: directories.data?.directories ?? [],
    refreshDirectories: () => void directories.refetch(),
    sources: asked ?? [],
    setSources,
    answer: answer.data,
    /** Holds what is known against the plan as it is now. */
    refresh: () => void answer.refetch(),
    /** Asks the directories anew, however short a time ago they were asked. */
    askAgain: () => setAgain((n) => n + 1),
    shown,
    show,
    setShow,
    wishes,
    order,
    setOrder,
    cut,
    dayOf: (candidate: Candidate) =>
      candidate.along === null || cut.length < 2 ? [] : daysOfStation(candidate.along, cut, query?.km ?? 0),
    band,
    setBand,
    bands: [
      ['all', 'All'] as const,
      ...[...new Set((all ?? []).filter(({ unfit }) => unfit === null).map(bandOf))]
        .sort()
        .map((name) => [name, name] as const),
    ],
    showUnfit,
    setShowUnfit,
    showPresent,
    setShowPresent,
    drafted,
  };
}

export type Search = ReturnType<typeof useSearch>;
