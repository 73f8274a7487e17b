import { fail, ok, type Result } from '../result';
import { ALL_CALL, HIGHEST_NUMBER } from './talkgroup';

/** A number of a group or a person as somebody wrote it: one, or two where it reads as decimal and as hexadecimal alike. */
export type CallNumber =
  | { kind: 'one'; number: number }
  | { kind: 'either'; decimal: number; hexadecimal: number };

const held = (number: number) => (number >= 1 && number <= HIGHEST_NUMBER) || number === ALL_CALL;

/**
 * Understands a number of a talkgroup or a person: `416` and, as hexadecimal, `0x1A0`, `1A0h`, `1a0`; with `d` behind it, `416d`, it is
 * decimal and nothing else. Figures alone read as either, unless they say the same both ways or only one of them is a number that is
 * called (1 to 16,776,415, and 16,777,215 for all). Fails with what to write instead.
 */
export function parseCallNumber(typed: string): Result<CallNumber> {
  const text = typed
    .trim()
    .replaceAll(/[\s_.,]/g, '')
    .toLowerCase();
  const one = (number: number): Result<CallNumber> =>
    held(number)
      ? ok({ kind: 'one', number })
      : fail(
          `${number} is no number that is called: those are 1 to ${HIGHEST_NUMBER}, and ${ALL_CALL} for all.`,
        );
  const hex = /^0x([0-9a-f]{1,6})$/.exec(text)?.[1] ?? /^([0-9a-f]{1,6})h$/.exec(text)?.[1];
  if (hex) return one(parseInt(hex, 16));
  const plain = /^(\d{1,8})d$/.exec(text)?.[1];
  if (plain) return one(Number(plain));
  if (/^[0-9a-f]{1,6}$/.test(text) && /[a-f]/.test(text)) return one(parseInt(text, 16));
  if (!/^\d{1,8}$/.test(text)) return fail('Write a number: 416, or as hexadecimal 0x1A0 or 1A0h.');
  const decimal = Number(text);
  const hexadecimal = text.length <= 6 ? parseInt(text, 16) : 0;
  if (decimal === hexadecimal || !held(hexadecimal)) return one(decimal);
  if (!held(decimal)) return one(hexadecimal);
  return ok({ kind: 'either', decimal, hexadecimal });
}

/** A number as hexadecimal, as people write it: `0x1A0`. */
export const hexadecimal = (number: number): string => `0x${number.toString(16).toUpperCase()}`;

/** A number both ways: `416 (0x1A0)`. */
export const callNumberText = (number: number): string => `${number} (${hexadecimal(number)})`;
