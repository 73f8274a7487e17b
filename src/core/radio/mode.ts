import { plain } from './written';
import type { Hertz, Range } from './frequency';

/** Modes and the width in Hz that each occupies on air. */
export const MODE_WIDTHS = {
  FM: 16_000,
  NFM: 11_000,
  AM: 8_000,
  LSB: 3_000,
  USB: 3_000,
  CW: 500,
  DMR: 12_500,
  P25: 12_500,
  C4FM: 12_500,
  NXDN: 6_250,
} as const;
export type Mode = keyof typeof MODE_WIDTHS;
export const MODES = Object.keys(MODE_WIDTHS) as Mode[];

/** The modes in words. */
export const MODE_NAMES: Record<Mode, string> = {
  FM: 'FM',
  NFM: 'narrow FM',
  AM: 'AM',
  LSB: 'lower sideband',
  USB: 'upper sideband',
  CW: 'Morse',
  DMR: 'DMR',
  P25: 'P25',
  C4FM: 'C4FM',
  NXDN: 'NXDN',
};

/** True for modes whose access is not a tone or code. */
export function isDigital(mode: Mode): boolean {
  return mode === 'DMR' || mode === 'P25' || mode === 'C4FM' || mode === 'NXDN';
}

/** What a transmission at `hz` occupies: to both sides of the carrier, for a sideband to its own side only. */
export function occupied(hz: Hertz, mode: Mode): Range {
  const width = MODE_WIDTHS[mode];
  if (mode === 'USB') return { from: hz, to: hz + width };
  if (mode === 'LSB') return { from: hz - width, to: hz };
  return { from: hz - width / 2, to: hz + width / 2 };
}

/** Ways to write a mode beside its own name, in capitals and without spaces, dashes and points. */
const ENTRY: Record<string, Mode> = {
  NARROWFM: 'NFM',
  NARROW: 'NFM',
  FMN: 'NFM',
  FMNARROW: 'NFM',
  NBFM: 'NFM',
  LOWERSIDEBAND: 'LSB',
  UPPERSIDEBAND: 'USB',
  MORSE: 'CW',
};

/** Understands a mode as typed, in any case; undefined where it is none. */
export function parseMode(text: string): Mode | undefined {
  const typed = plain(text).toUpperCase().replace(/[ .-]/g, '');
  return MODES.find((mode) => mode === typed) ?? (Object.hasOwn(ENTRY, typed) ? ENTRY[typed] : undefined);
}
