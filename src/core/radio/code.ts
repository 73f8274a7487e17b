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

/** The code of `list` whose octal number is nearest; the lower of two as near. */
export function nearestCode(code: Code, list: readonly Code[] = CODES): Code {
  const value = codeValue(code);
  return list.reduce((best, next) =>
    Math.abs(codeValue(next) - value) < Math.abs(codeValue(best) - value) ? next : best,
  );
}
