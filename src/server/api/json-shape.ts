/**
 * Checks the shape of JSON before it is parsed. To parse a million nested lists, or to validate a million wrong values, would block the server; one pass over the
 * bytes finds both.
 */
export const JSON_LIMITS = { depth: 64, values: 400_000 };

const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c];
const [OPEN, CLOSE, OPEN_LIST, CLOSE_LIST] = [0x7b, 0x7d, 0x5b, 0x5d];

/** Where a text that begins at a quotation mark ends; the length where it does not. */
function endOfText(bytes: Uint8Array, from: number): number {
  for (let at = from + 1; ;) {
    const quote = bytes.indexOf(QUOTE, at);
    if (quote < 0) return bytes.length;
    let slashes = 0;
    while (bytes[quote - 1 - slashes] === BACKSLASH) slashes++;
    if (slashes % 2 === 0) return quote;
    at = quote + 1;
  }
}

/** What is wrong with the shape of JSON, as the rest of a sentence about it; null where nothing is. */
export function shapeFault(bytes: Uint8Array): string | null {
  let [depth, values] = [0, 1];
  for (let at = 0; at < bytes.length; at++) {
    const byte = bytes[at];
    if (byte === QUOTE) at = endOfText(bytes, at);
    else if (byte === COMMA) values++;
    else if (byte === OPEN || byte === OPEN_LIST) {
      values++;
      if (++depth > JSON_LIMITS.depth) return `is nested deeper than ${JSON_LIMITS.depth} levels`;
    } else if (byte === CLOSE || byte === CLOSE_LIST) depth--;
    if (values > JSON_LIMITS.values) return `has more than ${JSON_LIMITS.values} values`;
  }
  return null;
}
