// @ts-check
/**
 * Serves in turn: one client after the other, so that nobody who types waits behind the hundreds that a script has sent at
 * once. It stands at the door, before a request costs anything: further in, those hundreds would already be worked on.
 *
 * @typedef {(lane: string, work: () => Promise<void>) => boolean} InTurn does the work when it is this lane's turn; false
 *   where the lane has too much waiting already
 *
 * @param {{ atOnce: number, ofOne: number, mostWaiting: number }} limits how many are worked on at once, how many of them of
 *   one lane, and how many may wait in one
 * @returns {InTurn}
 */
export function makeTurns({ atOnce, ofOne, mostWaiting }) {
  /** Lanes in which something waits or is worked on; a map keeps the order in which its keys came. @type {Map<string, { waiting: (() => Promise<void>)[], working: number }>} */
  const lanes = new Map();
  let working = 0;

  /** The lane whose turn it is; those of which as much is worked on as may be are passed over. */
  const next = () => {
    for (const entry of lanes) if (entry[1].waiting.length > 0 && entry[1].working < ofOne) return entry;
    return undefined;
  };

  const serve = () => {
    for (let turn = next(); turn && working < atOnce; turn = next()) {
      const [name, lane] = turn;
      // Whoever is served goes to the end of the row.
      lanes.delete(name);
      lanes.set(name, lane);
      working++;
      lane.working++;
      lane.waiting
        .shift()?.()
        .catch(() => {})
        .finally(() => {
          working--;
          lane.working--;
          if (lane.working + lane.waiting.length === 0) lanes.delete(name);
          serve();
        });
    }
  };

  return (name, work) => {
    const lane = lanes.get(name) ?? { waiting: [], working: 0 };
    if (lane.waiting.length >= mostWaiting) return false;
    lane.waiting.push(work);
    lanes.set(name, lane);
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
