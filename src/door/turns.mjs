// @ts-check
/**
 * Serves in turn: one client after the other, so that nobody who types waits behind the hundreds that a script has sent at
 * once. It stands at the door, before a request costs anything: further in, those hundreds would already be worked on.
 *
 * @typedef {(lane: string, work: () => Promise<void>) => boolean} InTurn does the work when it is this lane's turn; false
 *   where the lane has too much waiting already
 *
 * @param {{ atOnce: number, mostWaiting: number }} limits
 * @returns {InTurn}
 */
export function makeTurns({ atOnce, mostWaiting }) {
  /** @type {Map<string, (() => Promise<void>)[]>} */
  const lanes = new Map();
  let working = 0;

  const serve = () => {
    while (working < atOnce) {
      const next = lanes.entries().next().value;
      if (!next) return;
      const [lane, waiting] = next;
      const work = waiting.shift();
      // Whoever has more goes to the end of the row; a map keeps the order in which its keys came.
      lanes.delete(lane);
      if (waiting.length > 0) lanes.set(lane, waiting);
      if (!work) continue;
      working++;
      work()
        .catch(() => {})
        .finally(() => {
          working--;
          serve();
        });
    }
  };

  return (lane, work) => {
    const waiting = lanes.get(lane) ?? [];
    if (waiting.length >= mostWaiting) return false;
    waiting.push(work);
    lanes.set(lane, waiting);
    serve();
    return true;
  };
}

/**
 * The lane in which a change waits: the client that its key names (server/once.ts), or what it is about.
 *
 * @param {string | undefined} key
 * @param {string} path
 */
export const laneOf = (key, path) => /^([\w-]{4,40})\./.exec(key ?? '')?.[1] ?? path.split('?', 1)[0] ?? '';
