'use client';

import { useState } from 'react';
import { zonesForTrip } from '@/core/organise';
import { Button, Field, useEscape } from '@/ui';
import { PlaceField, type PlaceFound } from './place-field';
import { zoneWord, type Organising } from './use-organise';

/** A bank for each day of a trip: where one is that day, and how far around. What each would hold is seen before it is made. */
export function TripForm({ organising, onClose }: { organising: Organising; onClose: () => void }) {
  const { plan, model, addZones } = organising;
  const [places, setPlaces] = useState<(PlaceFound | null)[]>([null, null, null]);
  const [km, setKm] = useState('30');
  useEscape(onClose);
  const distance = Number(km.replace(',', '.')) || 0;
  const days = places.flatMap((place, at) => (place ? [{ name: `Day ${at + 1}`, point: place }] : []));
  const zones = zonesForTrip(plan, days, distance, model);
  const word = zoneWord(organising);
  return (
    <div
      role="group"
      aria-label="Days of a trip"
      className="flex shrink-0 flex-col gap-2 border-b border-line-strong bg-paper p-3"
    >
      {places.map((place, at) => {
        const zone = zones.find(({ name }) => name === `Day ${at + 1}`);
        return (
          <div key={at} className="flex items-end gap-2">
            <PlaceField
              className="flex-1"
              label={`Day ${at + 1}`}
              onPlace={(found) => setPlaces((now) => now.map((one, n) => (n === at ? found : one)))}
            />
            <span className="w-24 pb-1.5 text-[12.5px] text-soft">
              {place && zone ? `${zone.members.length} channels` : ''}
            </span>
          </div>
        );
      })}
      <div className="flex items-end gap-2">
        <Field
          className="w-24"
          label="Around, km"
          inputMode="decimal"
          value={km}
          onChange={(event) => setKm(event.target.value)}
        />
        <Button size="small" className="mb-0.5" onClick={() => setPlaces((now) => [...now, null])}>
          One day more
        </Button>
      </div>
      <p className="text-[12.5px] text-soft">
        Channels of which no place is known, such as calling channels, are in every day.
      </p>
      <div className="flex gap-1.5">
        <Button
          kind="strong"
          size="small"
          disabled={days.length === 0}
          onClick={() => {
            addZones(zones);
            onClose();
          }}
        >
          {days.length === 1 ? `Make 1 ${word}` : `Make ${days.length} ${word}s`}
        </Button>
        <Button kind="quiet" size="small" onClick={onClose}>
          Cancel
        </Button>
      </div>
    </div>
  );
}
