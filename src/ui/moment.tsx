'use client';

import { useEffect, useState } from 'react';

/**
 * How moments are written, in the language of the browser; null until it is known, since the server does not know it. One way
 * everywhere: day, month, year, and the time to the minute.
 */
export function useTimeFormat(): Intl.DateTimeFormat | null {
  const [format, setFormat] = useState<Intl.DateTimeFormat | null>(null);
  useEffect(
    () => setFormat(new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })),
    [],
  );
  return format;
}

/** A moment, as people read it. */
export function Moment({ at, className }: { at: string; className?: string }) {
  const format = useTimeFormat();
  return (
    <time dateTime={at} className={className}>
      {format?.format(new Date(at)) ?? '\u00a0'}
    </time>
  );
}
