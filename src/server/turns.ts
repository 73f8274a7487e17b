import { Problem } from './problem';

/**
 * Serves changes in turn: one client after the other, and of each client one at a time, so that nobody who types waits
 * behind the hundreds that a script has sent at once.
 */

const MOST_WAITING = 1000;

const lanes = new Map<string, (() => Promise<void>)[]>();
let serving = false;

async function serve(): Promise<void> {
  if (serving) return;
  serving = true;
  for (let lane = lanes.entries().next().value; lane; lane = lanes.entries().next().value) {
    const [client, waiting] = lane;
    const next = waiting.shift()!;
    // Whoever has more goes to the end of the row; a map keeps the order in which its keys came.
    lanes.delete(client);
    if (waiting.length > 0) lanes.set(client, waiting);
    await next();
  }
  serving = false;
}

/** Does the work when it is this client's turn; refuses where that client has too much waiting already. */
export function inTurn<T>(client: string, work: () => Promise<T>): Promise<T> {
  const waiting = lanes.get(client) ?? [];
  if (waiting.length >= MOST_WAITING)
    return Promise.reject(
      new Problem(
        429,
        'too-many',
        'Too many changes at once',
        `${MOST_WAITING} changes of yours are waiting already. Nothing was changed by this one; send it again in a while.`,
      ),
    );
  return new Promise((resolve, reject) => {
    waiting.push(() => work().then(resolve, reject));
    lanes.set(client, waiting);
    void serve();
  });
}
