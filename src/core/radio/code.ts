/** A DCS code as its three octal figures read in decimal: code D023 is 23. */
export type Code = number;

/** The 104 DCS codes in use. */
export const CODES: readonly Code[] = (
  '023 025 026 031 032 036 043 047 051 053 054 065 071 072 073 074 114 115 116 122 125 131 132 134 143 145 152 ' +
  '155 156 162 165 172 174 205 212 223 225 226 243 244 245 246 251 252 255 261 263 265 266 271 274 306 311 315 ' +
  '325 331 332 343 346 351 356 364 365 371 411 412 413 423 431 432 445 446 452 454 455 462 464 465 466 503 506 ' +
  '516 523 526 532 546 565 606 612 624 627 631 632 654 662 664 703 712 723 731 732 734 743 754'
)
  .split(' ')
  .map(Number);

/** The three figures of a code: 23 is `023`. */
export function codeFigures(code: Code): string {
  return String(code).padStart(3, '0');
}

/** The number that the figures stand for in octal: 23 is 19. */
export function codeValue(code: Code): number {
  return Number.parseInt(codeFigures(code), 8);
}

const WORD_BITS = 23;
const ALL_ONES = (1 << WORD_BITS) - 1;
/** The generator of the Golay code that DCS takes, x^11 + x^10 + x^6 + x^5 + x^4 + x^2 + 1, its highest power in the lowest bit's place. */
const GENERATOR = 0xc75;

/**
 * The 23 bits that a code sends over and over, the lowest first: nine of the code, the fixed 001, and eleven of the Golay
 * code (23, 12). Code 023 is 0x763813.
 */
export function codeWord(code: Code): number {
  const data = 0x800 | codeValue(code);
  let rest = data;
  for (let bit = 0; bit < 12; bit++) rest = (rest & 1 ? rest ^ GENERATOR : rest) >>> 1;
  return (rest << 12) | data;
}

/**
 * What is heard of a code: the word has no beginning on air, so that all its turns are one. Two codes for which this is the
 * same open each other; an inverted code is always a normal one besides.
 */
export function codeOnAir(code: Code, inverted: boolean): number {
  let word = codeWord(code) ^ (inverted ? ALL_ONES : 0);
  let least = word;
  for (let turn = 1; turn < WORD_BITS; turn++) {
    word = ((word << 1) & ALL_ONES) | (word >>> (WORD_BITS - 1));
    least = Math.min(least, word);
  }
  return least;
}

/** The name in `list` under which a code goes on air just the same; normal before inverted. Undefined where it has none. */
export function sameCodeOnAir(
  code: Code,
  inverted: boolean,
  list: readonly Code[] = CODES,
  invertedToo = true,
): { code: Code; inverted: boolean } | undefined {
  const air = codeOnAir(code, inverted);
  for (const asInverted of invertedToo ? [false, true] : [false]) {
    const found = list.find((other) => codeOnAir(other, asInverted) === air);
    if (found !== undefined) return { code: found, inverted: asInverted };
  }
  return undefined;
}
