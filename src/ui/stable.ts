'use client';

import { useEffect, useCallback, useLayoutEffect, useRef } from 'react';

/** A function that keeps its identity and always does what the newest one does: for memoised children. */
export function useStable<A extends unknown[], R>(newest: (...args: A) => R): (...args: A) => R {
  const latest = useRef(newest);
  useLayoutEffect(() => {
    latest.current = newest;
  });
  return useCallback((...args: A) => latest.current(...args), []);
}

/** Calls back on Esc while the component is there, unless something nearer to the focus has used the key already. */
export function useEscape(onEscape: () => void): void {
  const escape = useStable(onEscape);
  useEffect(() => {
    const hear = (event: KeyboardEvent) => {
      if (event.key === 'Escape' && !event.defaultPrevented) escape();
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, [escape]);
}
