'use client';

import { Button, Choice, Field } from '@/ui';
import type { Search } from './use-search';

/** The circle to search, and filters over what was found. */
export function SearchBar({ search }: { search: Search }) {
  return (
    <form
      aria-label="Search the Relay Register"
      className="flex shrink-0 flex-wrap items-end gap-2.5"
      onSubmit={(event) => {
        event.preventDefault();
        void search.search();
      }}
    >
      <Field
        label="Around"
        className="w-52"
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
      <Field
        label="Within"
        className="w-20"
        inputMode="decimal"
        value={search.radius}
        onChange={(event) => search.setRadius(event.target.value)}
      />
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
      <Button kind="strong" type="submit" aria-busy={search.busy}>
        {search.busy ? 'Searching…' : 'Search'}
      </Button>
      {search.answer && (
        <>
          <span className="mx-1 h-8 w-px bg-line-strong" aria-hidden />
          <Choice
            label="Band"
            value={search.band}
            options={search.bands}
            onChange={search.setBand}
            className="w-28"
          />
          <Choice
            label="Mode"
            value={search.mode}
            options={search.modes}
            onChange={search.setMode}
            className="w-24"
          />
        </>
      )}
    </form>
  );
}
