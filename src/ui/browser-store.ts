'use client';

import { useSyncExternalStore } from 'react';

/** Something that this browser keeps under a name, for every page of it. */
export interface BrowserStore<T> {
  now(): T;
  put(value: T): void;
  /** The value in a component: the same one as long as nothing else is kept, also by another window. */
  use(): T;
}

/**
 * What a browser keeps as JSON text under `key`. `read` puts right what another version or a person left there, and says what holds
 * where nothing is kept, which is also what the server draws.
 */
export function browserStore<T>(key: string, read: (text: string | null) => T): BrowserStore<T> {
  const nothing = read(null);
  let known: { text: string | null; value: T } = { text: null, value: nothing };
  const listeners = new Set<() => void>();
  const now = () => {
    const text = localStorage.getItem(key);
    if (text !== known.text) known = { text, value: read(text) };
    return known.value;
  };
  const subscribe = (listener: () => void) => {
    listeners.add(listener);
    window.addEventListener('storage', listener);
    return () => {
      listeners.delete(listener);
      window.removeEventListener('storage', listener);
    };
  };
  return {
    now,
    put(value) {
      localStorage.setItem(key, JSON.stringify(value));
      for (const listener of listeners) listener();
    },
    use: () => useSyncExternalStore(subscribe, now, () => nothing),
  };
}
