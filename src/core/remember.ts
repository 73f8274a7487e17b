/**
 * Remembers what was worked out of a value that never changes, for as long as the value is there: channels, plans, models and
 * owners are handed on as the very same while nothing of them changes, so that what did not change is not computed again.
 */
export function remembered<K extends object, V>(work: (key: K) => V): (key: K) => V {
  const known = new WeakMap<K, V>();
  return (key) => {
    let value = known.get(key);
    if (value === undefined && !known.has(key)) known.set(key, (value = work(key)));
    return value as V;
  };
}

/**
 * Works out a value for each record of a list, and remembers those of the last list by their places: a record that stands where
 * it stood is not even looked at, which for thousands of them costs more than the work on the few that are new. `work` reads
 * nothing that changes but the record.
 *
 * @example const lengths = rememberedAlong((name: string) => name.length); lengths(['a', 'bc']) // [1, 2]
 */
export function rememberedAlong<R, V, C = void>(
  work: (record: R, context: C) => V,
): (list: readonly R[], context: C) => readonly V[] {
  let list: readonly R[] = [];
  let values: readonly V[] = [];
  return (next, context) => {
    if (next === list) return values;
    let same = next.length === list.length;
    const made = new Array<V>(next.length);
    for (let at = 0; at < next.length; at++) {
      const record = next[at]!;
      if (at < list.length && record === list[at]) made[at] = values[at]!;
      else {
        made[at] = work(record, context);
        if (same) same = made[at] === values[at];
      }
    }
    list = next;
    // What is made of it in turn stands while this is the very same.
    if (!same) values = made;
    return values;
  };
}

/** Texts of which an answer is remembered; then all are forgotten at once, since what comes next may be others. */
const MOST_TEXTS = 20_000;

/**
 * What is worked out of a text, remembered: in a file of many rows nearly every cell stands there hundreds of times. The answer is the very
 * same each time, so nobody may change it.
 *
 * @example const parse = rememberedByText((text) => parseFrequency(text));
 */
export function rememberedByText<V>(work: (text: string) => V): (text: string) => V {
  const known = new Map<string, V>();
  // Most columns say one thing or another from row to row: to see that costs a third of looking it up.
  let [one, other]: [string | null, string | null] = [null, null];
  let answerOne: V | undefined;
  let answerOther: V | undefined;
  return (text) => {
    if (text === one) return answerOne as V;
    if (text === other) return answerOther as V;
    let answer = known.get(text);
    if (answer === undefined && !known.has(text)) {
      if (known.size >= MOST_TEXTS) known.clear();
      known.set(text, (answer = work(text)));
    }
    [other, answerOther] = [one, answerOne];
    [one, answerOne] = [text, answer];
    return answer as V;
  };
}
