/**
 * Rows of a list in a JSON document that is too large to be held: bytes in, values out. Where rows end is told by brackets and quotation
 * marks alone; what is between is parsed by JSON.parse, many rows at once, which takes a fifth of what parsing sign by sign does. Of the rest
 * of the document its outermost members are kept, without what is in them.
 */

const [QUOTE, BACKSLASH, COMMA] = [0x22, 0x5c, 0x2c];
const [OPEN, CLOSE, OPEN_LIST, CLOSE_LIST] = [0x7b, 0x7d, 0x5b, 0x5d];
const isSpace = (byte: number) => byte === 0x20 || byte === 0x0a || byte === 0x0d || byte === 0x09;

/** Longest skeleton of a document, bytes: what has more is no list with a head. */
const LONGEST_HEAD = 1_000_000;

export interface RowSplitter {
  /** Takes the next bytes, gives the rows that ended in them; null where what came is no JSON, from where on `rows` says. */
  take(bytes: Uint8Array): unknown[] | null;
  /** Where it broke off: the rows that were good before, since it was last asked for some. */
  good(): readonly unknown[];
  /** Bytes since the last row ended. */
  waiting(): number;
  /** The end: the outermost members where the document is whole, the list itself aside; null where it is not. */
  end(): Readonly<Record<string, unknown>> | null;
  /** True where what is left over can be no JSON, however it goes on. */
  spoilt(): boolean;
}

/** The rows of a text, one by one, as far as they are JSON. */
function* rowsOf(text: string): Generator<unknown> {
  let [from, depth, quoted] = [0, 0, false];
  for (let at = 0; at <= text.length; at++) {
    const sign = text[at];
    if (quoted) {
      if (sign === '\\') at++;
      else if (sign === '"') quoted = false;
    } else if (sign === '"') quoted = true;
    else if (sign === '{' || sign === '[') depth++;
    else if (sign === '}' || sign === ']') depth--;
    else if ((sign === ',' && depth === 0) || sign === undefined) {
      let value: unknown;
      try {
        value = JSON.parse(text.slice(from, at));
      } catch {
        return;
      }
      yield value;
      from = at + 1;
    }
  }
}

/** Splits the list that is the member `list` of the outermost object. */
export function rowSplitter(list: string): RowSplitter {
  const decoder = new TextDecoder();
  const before = new RegExp(`"${list}"\\s*:\\s*$`);
  let head = '';
  let [depth, quoted, escaped, inRows, begun, broken] = [0, false, false, false, false, false];
  /** What came since the last row that was given away. */
  let carried: Uint8Array[] = [];
  let carriedBytes = 0;

  /** The rows in what was carried and more, up to the end of a row. */
  const parse = (more: Uint8Array, last: boolean): unknown[] | null => {
    const whole = carried.length === 0 ? more : joined([...carried, more]);
    [carried, carriedBytes] = [[], 0];
    let text = decoder.decode(whole);
    if (begun) {
      if (text.trim() === '') return [];
      if (!/^\s*,/.test(text)) return lost([]);
      text = text.replace(/^\s*,/, '');
      if (text.trim() === '') return lost([]);
    } else if (text.trim() === '') return last ? [] : lost([]);
    begun = true;
    try {
      return JSON.parse(`[${text}]`) as unknown[];
    } catch {
      return lost([...rowsOf(text)]);
    }
  };
  /** Rows that were good before it broke off: they are given, and then nothing more. */
  let good: unknown[] = [];
  const lost = (rows: unknown[]): null => {
    broken = true;
    good = rows;
    return null;
  };
  const keepHead = (bytes: Uint8Array, from: number, to: number) => {
    if (to > from) head += decoder.decode(bytes.subarray(from, to));
    if (head.length > LONGEST_HEAD) broken = true;
  };

  /** Goes through rows from a place on; gives where it stopped: at the end of the list, or of what came. `ended` is behind the last row. */
  const scan = (bytes: Uint8Array, start: number): { at: number; ended: number; done: boolean } => {
    let ended = -1;
    let at = start;
    for (; at < bytes.length; at++) {
      const byte = bytes[at]!;
      if (quoted) {
        if (escaped) escaped = false;
        else if (byte === BACKSLASH) escaped = true;
        else if (byte === QUOTE) quoted = false;
      } else if (byte === QUOTE) quoted = true;
      else if (byte === OPEN || byte === OPEN_LIST) depth++;
      else if (byte === CLOSE || byte === CLOSE_LIST) {
        depth--;
        if (depth === 2) ended = at + 1;
        if (depth === 1) return { at, ended, done: true };
      } else if (byte === COMMA && depth === 2) ended = at;
    }
    return { at, ended, done: false };
  };

  return {
    take(bytes) {
      if (broken) return null;
      const found: unknown[] = [];
      let at = 0;
      while (at < bytes.length) {
        if (inRows) {
          const { at: to, ended, done } = scan(bytes, at);
          const upTo = done ? to : ended;
          if (upTo >= 0 && upTo > at - 1 && (done || ended >= at)) {
            const rows = parse(bytes.subarray(at, upTo), done);
            if (!rows) {
              found.push(...good);
              good = found;
              return null;
            }
            for (const row of rows) found.push(row);
            at = upTo;
          }
          if (done) {
            inRows = false;
            keepHead(bytes, to, to + 1);
            at = to + 1;
          } else {
            carried.push(bytes.slice(at));
            carriedBytes += bytes.length - at;
            at = bytes.length;
          }
          continue;
        }
        // Outside of the list: what is at the outermost level is kept.
        let from = at;
        for (; at < bytes.length; at++) {
          const byte = bytes[at]!;
          if (quoted) {
            if (escaped) escaped = false;
            else if (byte === BACKSLASH) escaped = true;
            else if (byte === QUOTE) quoted = false;
          } else if (byte === QUOTE) quoted = true;
          else if (byte === OPEN || byte === OPEN_LIST) {
            depth++;
            if (depth === 2) {
              keepHead(bytes, from, at + 1);
              from = bytes.length;
              if (byte === OPEN_LIST && before.test(head.slice(0, -1))) {
                inRows = true;
                at++;
                break;
              }
            }
          } else if (byte === CLOSE || byte === CLOSE_LIST) {
            depth--;
            if (depth === 1) from = at;
          } else if (depth === 0 && !isSpace(byte)) broken = true;
        }
        if (depth <= 1 && !inRows) keepHead(bytes, from, at);
        if (broken) {
          good = found;
          return null;
        }
      }
      return found;
    },
    good: () => good,
    waiting: () => carriedBytes,
    end() {
      if (broken || inRows) return null;
      try {
        const document: unknown = JSON.parse(head);
        return typeof document === 'object' && document !== null && !Array.isArray(document)
          ? (document as Record<string, unknown>)
          : null;
      } catch {
        return null;
      }
    },
    spoilt() {
      if (broken) return true;
      const rest = decoder.decode(joined(carried)).replace(/^\s*,?\s*/, '');
      return rest !== '' && !/^["{[\d\-tfn]/.test(rest);
    },
  };
}

/** Several stretches of bytes as one. */
function joined(parts: readonly Uint8Array[]): Uint8Array {
  if (parts.length === 1) return parts[0]!;
  const whole = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
