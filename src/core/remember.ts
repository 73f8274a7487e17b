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
