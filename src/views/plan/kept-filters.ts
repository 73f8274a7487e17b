'use client';

import { useSyncExternalStore } from 'react';
import { z } from 'zod/mini';

const KEY = 'veridon-filters';
const MOST = 40;

/** A filter under a name; kept in this browser, for every plan. */
export interface KeptFilter {
  name: string;
  text: string;
}

const schema = z.array(z.object({ name: z.string(), text: z.string() }));
const NONE: readonly KeptFilter[] = [];

let read: { from: string | null; list: readonly KeptFilter[] } = { from: null, list: NONE };
const listeners = new Set<() => void>();

/** What is kept; what another version or a person left there that is none is nothing. */
function all(): readonly KeptFilter[] {
  const from = localStorage.getItem(KEY);
  if (from === read.from) return read.list;
  let list = NONE;
  try {
    const parsed = schema.safeParse(JSON.parse(from ?? '[]'));
    if (parsed.success) list = parsed.data.slice(0, MOST);
  } catch {
    // No JSON: none is kept.
  }
  read = { from, list };
  return list;
}

function put(list: readonly KeptFilter[]): void {
  localStorage.setItem(KEY, JSON.stringify(list.slice(0, MOST)));
  for (const listener of listeners) listener();
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  // Another window keeps one.
  window.addEventListener('storage', listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener('storage', listener);
  };
}

export function useKeptFilters() {
  return {
    all: useSyncExternalStore(subscribe, all, () => NONE),
    /** Keeps a filter under a name; one of that name is replaced. */
    keep: (name: string, text: string) =>
      put([{ name, text }, ...all().filter((one) => one.name !== name && one.text !== text)]),
    drop: (text: string) => put(all().filter((one) => one.text !== text)),
  };
}
