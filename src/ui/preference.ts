/** A choice of the person that a cookie keeps for a year, so that the server can draw the next page by it at once. */
export interface Preference<T extends string> {
  cookie: string;
  /** The choice that a cookie's value stands for; the first one where it stands for none. */
  read: (value: string | undefined) => T;
  /** Keeps a choice; in the browser only. */
  keep: (value: T) => void;
}

/** @example const theme = preference('veridon-theme', ['system', 'light', 'dark']); */
export function preference<T extends string>(cookie: string, values: readonly T[]): Preference<T> {
  return {
    cookie,
    read: (value) => values.find((one) => one === value) ?? values[0]!,
    keep: (value) => {
      document.cookie = `${cookie}=${value}; path=/; max-age=31536000; samesite=strict`;
    },
  };
}
