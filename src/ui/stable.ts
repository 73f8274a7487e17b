'use client';

import { useCallback, useLayoutEffect, useRef } from 'react';

/** A function that keeps its identity and always does what the newest one does: for memoised children. */
export function useStable<A extends unknown[], R>(newest: (...args: A) => R): (...args: A) => R {
  const latest = useRef(newest);
  useLayoutEffect(() => {
    latest.current = newest;
  });
  return useCallback((...args: A) => latest.current(...args), []);
}
