export const THEMES = ['system', 'light', 'dark'] as const;
export type Theme = (typeof THEMES)[number];
export const THEME_COOKIE = 'veridon-theme';

/** Puts a theme on and keeps it for a year; the cookie lets the server draw the next page in it at once. */
export function setTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  document.cookie = `${THEME_COOKIE}=${theme}; path=/; max-age=31536000; samesite=strict`;
}

/** A theme from a cookie's value; `system` where it is none. */
export function readTheme(value: string | undefined): Theme {
  return THEMES.find((theme) => theme === value) ?? 'system';
}
