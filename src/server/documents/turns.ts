// One for the process, however often modules are loaded again.
const kept = globalThis as { veridonTurns?: Map<string, Promise<unknown>> };
const waiting = (kept.veridonTurns ??= new Map<string, Promise<unknown>>());

/** Runs what is done under one name one after the other, in the order in which it was asked for. */
export function inTurn<T>(name: string, work: () => Promise<T>): Promise<T> {
  const before = waiting.get(name) ?? Promise.resolve();
  const mine = before.then(work, work);
  const settled = mine.then(
    () => {},
    () => {},
  );
  waiting.set(name, settled);
  void settled.then(() => {
    if (waiting.get(name) === settled) waiting.delete(name);
  });
  return mine;
}
