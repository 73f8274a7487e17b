import { plain } from './written';
import type { Hertz, Range } from './frequency';

/** What belongs to a mode, as data: nobody else asks which mode it is. */
interface ModeTraits {
  words: string;
  /** What it occupies on air, Hz. */
  width: Hertz;
  digital: boolean;
  /** What opens a repeater and one's own squelch; null where nothing does. */
  access: 'analogue' | 'dmr' | 'nac' | null;
  /** Has talkgroups, receive lists and a politeness. */
  talkgroups: boolean;
  /** The side of the carrier that is sent, where it is one alone. */
  side: 'lower' | 'upper' | null;
}

const analogue = (words: string, width: Hertz, side: ModeTraits['side'] = null): ModeTraits => ({
  ...{ words, width, side, digital: false, access: 'analogue', talkgroups: false },
});
const digital = (
  words: string,
  width: Hertz,
  access: ModeTraits['access'],
  talkgroups = false,
): ModeTraits => ({
  ...{ words, width, access, talkgroups, digital: true, side: null },
});

export const MODE_TRAITS = {
  FM: analogue('FM', 16_000),
  NFM: analogue('narrow FM', 11_000),
  AM: analogue('AM', 8_000),
  LSB: analogue('lower sideband', 3_000, 'lower'),
  USB: analogue('upper sideband', 3_000, 'upper'),
  CW: analogue('Morse', 500),
  DMR: digital('DMR', 12_500, 'dmr', true),
  P25: digital('P25', 12_500, 'nac'),
  C4FM: digital('C4FM', 12_500, null),
  NXDN: digital('NXDN', 6_250, null),
} as const satisfies Record<string, ModeTraits>;
export type Mode = keyof typeof MODE_TRAITS;
export const MODES = Object.keys(MODE_TRAITS) as Mode[];

export const isMode = (value: unknown): value is Mode => MODES.includes(value as Mode);

/** True for modes whose access is not a tone or code. */
export const isDigital = (mode: Mode): boolean => MODE_TRAITS[mode].digital;

/** True for modes in which a channel calls a talkgroup. */
export const hasTalkgroups = (mode: Mode): boolean => MODE_TRAITS[mode].talkgroups;

/** What a transmission at `hz` occupies: to both sides of the carrier, for a sideband to its own side only. */
export function occupied(hz: Hertz, mode: Mode): Range {
  const { width, side } = MODE_TRAITS[mode];
  if (side === 'upper') return { from: hz, to: hz + width };
  if (side === 'lower') return { from: hz - width, to: hz };
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
