import { preference } from '@/ui/preference';

export const THEMES = ['system', 'light', 'dark'] as const;
export type Theme = (typeof THEMES)[number];
export const themePreference = preference('veridon-theme', THEMES);

/** Puts a theme on and keeps it. */
export function setTheme(theme: Theme): void {
  document.documentElement.dataset.theme = theme;
  themePreference.keep(theme);
}
