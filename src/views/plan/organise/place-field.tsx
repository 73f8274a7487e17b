'use client';

import { useQuery } from '@tanstack/react-query';
import { useEffect, useId, useState } from 'react';
import { call } from '@/api/call';
import { directoryApi } from '@/api/directories';
import { Field } from '@/ui';

/** A town that was found. */
export interface PlaceFound {
  name: string;
  lat: number;
  lon: number;
}

/** A town by name, from the register's gazetteer; `onPlace` hears of it as soon as it is one, and of null while it is none. */
export function PlaceField({
  label,
  onPlace,
  className,
}: {
  label: string;
  onPlace: (place: PlaceFound | null) => void;
  className?: string;
}) {
  const list = useId();
  const [text, setText] = useState('');
  const wanted = text.trim();
  const { data, error } = useQuery({
    queryKey: ['places', wanted],
    queryFn: () => call(directoryApi.places, { query: { q: wanted } }),
    enabled: wanted !== '',
    staleTime: 60_000,
    retry: false,
  });
  const places = data?.places ?? [];
  const place = places.find(({ name }) => name.toLowerCase() === wanted.toLowerCase()) ?? null;
  const key = place && `${place.name} ${place.lat} ${place.lon}`;
  // eslint-disable-next-line react-hooks/exhaustive-deps -- told when it is another place, not when it was looked up again
  useEffect(() => onPlace(place), [key]);
  const unknown = wanted !== '' && data && !place && places.length === 0;
  return (
    <div className={className}>
      <Field
        label={label}
        list={list}
        value={text}
        placeholder="A town"
        onChange={(event) => setText(event.target.value)}
        problem={error ? 'The register does not answer.' : unknown ? 'Not in the gazetteer.' : undefined}
      />
      <datalist id={list}>
        {places.map(({ name, island }) => (
          <option key={`${name} ${island}`} value={name}>
            {island}
          </option>
        ))}
      </datalist>
    </div>
  );
}
