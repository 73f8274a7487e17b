'use client';

import clsx from 'clsx';
import { Button, Choice, Field } from '@/ui';
import { RouteFile } from './route-file';
import type { Search } from './use-search';

/** What is searched: a circle around a place or what lies along a route; of which directories; and what of it is shown. */
export function SearchBar({ search }: { search: Search }) {
  const { way } = search;
  return (
    <form
      aria-label="Search for stations"
      className="flex shrink-0 flex-wrap items-end gap-x-2.5 gap-y-2"
      onSubmit={(event) => {
        event.preventDefault();
        void search.search();
      }}
    >
      <div
        role="group"
        aria-label="What is searched"
        className="flex h-8 rounded-md border border-line-strong p-px"
      >
        {(
          [
            ['around', 'Around a place'],
            ['along', 'Along a route'],
          ] as const
        ).map(([key, label]) => (
          <button
            key={key}
            type="button"
            aria-pressed={way === key}
            className="whitespace-nowrap rounded-[5px] px-2 text-[13px] text-soft hover:text-ink aria-pressed:bg-wash aria-pressed:font-medium aria-pressed:text-ink"
            onClick={() => search.setWay(key)}
          >
            {label}
          </button>
        ))}
      </div>
      {way === 'around' ? (
        <>
          <Field
            label="Around"
            className="w-44"
            list="places"
            autoFocus
            value={search.place}
            onChange={(event) => search.setPlace(event.target.value)}
          />
          <datalist id="places">
            {search.places.map((place) => (
              <option key={place.name} value={place.name}>
                {place.island}
              </option>
            ))}
          </datalist>
        </>
      ) : (
        <Field
          label="Places in order"
          className="w-56"
          placeholder="Ketterby > Garrowick > Norrast"
          autoFocus
          value={search.stops}
          onChange={(event) => search.setStops(event.target.value)}
        />
      )}
      <Field
        label={way === 'around' ? 'Within' : 'To either side'}
        className={clsx(way === 'around' ? 'w-16' : 'w-20 whitespace-nowrap')}
        inputMode="decimal"
        value={way === 'around' ? search.radius : search.corridor}
        onChange={(event) => (way === 'around' ? search.setRadius : search.setCorridor)(event.target.value)}
      />
      {way === 'along' && <RouteFile search={search} />}
      <Choice
        label="Unit"
        value={search.unit}
        options={[
          ['km', 'km'],
          ['mi', 'miles'],
        ]}
        onChange={search.setUnit}
        className="w-20"
      />
      {way === 'along' && (
        <Field
          label="Days"
          className="w-14"
          inputMode="numeric"
          value={search.days}
          onChange={(event) => search.setDays(event.target.value)}
        />
      )}
      <Button kind="strong" type="submit" aria-busy={search.busy}>
        {search.busy && !search.open ? 'Searching…' : 'Search'}
      </Button>
      <span className="mx-0.5 h-8 w-px bg-line-strong max-[1100px]:hidden" aria-hidden />
      <Field
        label="Show"
        className="w-32"
        type="search"
        placeholder="2 m -dmr on air"
        title="Words and facts: 2 m, dmr, tone, on air, listen, encrypted, rescue; a dash before one turns it round"
        value={search.show}
        onChange={(event) => search.setShow(event.target.value)}
      />
      <Choice
        label="Band"
        value={search.band}
        options={search.bands}
        onChange={search.setBand}
        className="w-22"
      />
    </form>
  );
}
