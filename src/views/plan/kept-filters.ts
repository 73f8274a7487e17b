'use client';

import { z } from 'zod/mini';
import { browserStore } from '@/ui';

const MOST = 40;

/** A filter under a name; kept in this browser, for every plan. */
export interface KeptFilter {
  name: string;
  text: string;
}

const schema = z.array(z.object({ name: z.string(), text: z.string() }));
const NONE: readonly KeptFilter[] = [];

const store = browserStore('veridon-filters', (text): readonly KeptFilter[] => {
  try {
    const parsed = schema.safeParse(JSON.parse(text ?? '[]'));
    return parsed.success ? parsed.data.slice(0, MOST) : NONE;
  } catch {
    return NONE;
  }
});

export function useKeptFilters() {
  return {
    all: store.use(),
    /** Keeps a filter under a name; one of that name is replaced. */
    keep: (name: string, text: string) =>
      store.put(
        [{ name, text }, ...store.now().filter((one) => one.name !== name && one.text !== text)].slice(
          0,
          MOST,
        ),
      ),
    drop: (text: string) => store.put(store.now().filter((one) => one.text !== text)),
  };
}
