'use client';

import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { PlanId } from '@/core/plan';
import type { Candidate } from '@/core/directory';
import { ALLOCATIONS, inUnit, parsePoint, toKm, type DistanceUnit, type Point } from '@/core/radio';
import { call } from '@/api/call';
import { directoryApi, type Place } from '@/api/directories';
import { distancePreference } from './distance-preference';

interface Query extends Point {
  name: string;
  radius: number;
}

/** The band of a candidate's receive frequency, by the Orrin table. */
export const bandOf = (candidate: Candidate) =>
  ALLOCATIONS.orrin.find((a) => a.from <= candidate.entry.output && a.to >= candidate.entry.output)?.band ??
  'Other';

/** The circle that is asked for, what the register answers, and the filters that lie over it. */
export function useSearch(planId: PlanId | null, firstUnit: DistanceUnit) {
  const [place, setPlace] = useState('Ketterby');
  const [unit, setUnit] = useState(firstUnit);
  const [radius, setRadius] = useState(unit === 'km' ? '40' : '25');
  const [query, setQuery] = useState<Query | null>(null);
  const [trouble, setTrouble] = useState('');
  /** Places that may have been meant by one that there is not. */
  const [near, setNear] = useState<string[]>([]);
  const [band, setBand] = useState('all');
  const [mode, setMode] = useState('all');
  const [showUnfit, setShowUnfit] = useState(false);
  const [showPresent, setShowPresent] = useState(false);

  const places = useQuery({
    queryKey: ['places', place],
    queryFn: () => call(directoryApi.places, { query: { q: place } }),
    enabled: place.trim().length > 1,
    staleTime: 60_000,
    retry: false,
  });

  const answer = useQuery({
    queryKey: ['entries', query, planId],
    queryFn: () => {
      const { lat, lon, radius: km } = query!;
      return call(directoryApi.entries, { query: { lat, lon, radius: km, plan: planId ?? undefined } });
    },
    enabled: query !== null,
    retry: false,
    staleTime: Infinity,
  });

  const search = async () => {
    const km = toKm(Number(radius.replace(',', '.')), unit);
    if (!(km >= 1 && km <= 500))
      return setTrouble(`Type a radius from 1 to ${Math.floor(inUnit(500, unit))} ${unit}.`);
    setTrouble('');
    const point = parsePoint(place);
    if (point.ok) return setQuery({ ...point.value, name: 'the point', radius: km });
    const found = await places.refetch();
    if (found.error) return setTrouble(found.error.message);
    const typed = place.trim();
    const list = found.data?.places ?? [];
    const wanted = (found.data?.meant ?? typed).toLowerCase();
    const exact =
      list.find((one) => one.name.toLowerCase() === wanted) ?? (list.length === 1 ? list[0] : undefined);
    setNear([]);
    if (!exact) {
      // Those that hold what was typed, or those nearest in spelling: one of them is one click away.
      setNear(list.slice(0, 6).map(({ name }) => name));
      return setTrouble(
        list.length > 0
          ? `The gazetteer has no “${typed}”. Did you mean:`
          : `The gazetteer has no “${typed}”, nor anything like it. Type degrees such as 52.06, -29.84 or a locator such as HO52bb.`,
      );
    }
    searchAround(exact, km);
  };

  const searchAround = (exact: Place, km: number) => {
    setTrouble('');
    setNear([]);
    setPlace(exact.name);
    setQuery({ lat: exact.lat, lon: exact.lon, name: exact.name, radius: km });
    if (query && query.lat === exact.lat && query.radius === km) void answer.refetch();
  };

  const all = answer.data?.candidates;
  const shown = useMemo(
    () =>
      (all ?? []).filter(
        (candidate) =>
          (showUnfit || candidate.unfit === null) &&
          (showPresent || candidate.present === null || candidate.present.near) &&
          (band === 'all' || bandOf(candidate) === band) &&
          (mode === 'all' || candidate.entry.mode === mode),
      ),
    [all, showUnfit, showPresent, band, mode],
  );
  const options = (values: string[]) => [
    ['all', 'All'] as const,
    ...[...new Set(values)].map((value) => [value, value] as const),
  ];
  return {
    place,
    setPlace,
    radius,
    setRadius,
    unit,
    /** Shows distances in the unit from now on, and turns the radius that was typed into it. */
    setUnit: (next: DistanceUnit) => {
      distancePreference.keep(next);
      const typed = Number(radius.replace(',', '.'));
      if (radius.trim() !== '' && Number.isFinite(typed))
        setRadius(String(Math.round(inUnit(toKm(typed, unit), next))));
      setUnit(next);
    },
    query,
    search,
    near,
    /** Searches around one of the places that may have been meant. */
    searchNear: (name: string) => {
      const exact = places.data?.places.find((one) => one.name === name);
      const km = toKm(Number(radius.replace(',', '.')), unit);
      if (exact) searchAround(exact, km);
    },
    trouble: trouble || (answer.error ? answer.error.message : ''),
    busy: answer.isFetching,
    places: places.data?.places ?? [],
    answer: answer.data,
    refresh: () => void answer.refetch(),
    shown,
    band,
    setBand,
    bands: options(
      (all ?? [])
        .filter((candidate) => candidate.unfit === null)
        .map(bandOf)
        .sort(),
    ),
    mode,
    setMode,
    modes: options(
      (all ?? [])
        .filter((candidate) => candidate.unfit === null)
        .map((candidate) => candidate.entry.mode)
        .sort(),
    ),
    showUnfit,
    setShowUnfit,
    showPresent,
    setShowPresent,
  };
}

export type Search = ReturnType<typeof useSearch>;
