// @ts-check
/**
 * Takes in the bodies of changes before these wait for their turn: a body that never ends keeps a connection, and nothing else. All that are held
 * together have a limit, since each may lie here while others are worked on.
 *
 * @typedef {{ free: () => void, bytes: Promise<Buffer | 'too slow' | 'gone'> }} Body `free` gives its room back, once
 *
 * @param {{ most: number, idleMs: number }} limits bytes that all bodies together may have, and how long one may pause
 */
export function makeBodies({ most, idleMs }) {
  let held = 0;
  return {
    /** Bytes that are held or announced. */
    held: () => held,
    /**
     * Begins to take in a body of the length that was announced; undefined where there is no room for it.
     *
     * @param {import('node:http').IncomingMessage} request
     * @param {number} length
     * @returns {Body | undefined}
     */
    take(request, length) {
      if (held + length > most) return undefined;
      held += length;
      let freed = false;
      const free = () => {
        if (!freed) held -= length;
        freed = true;
      };
      return { free, bytes: bytesOf(request, idleMs) };
    },
  };
}

/**
 * @param {import('node:http').IncomingMessage} request
 * @param {number} idleMs
 * @returns {Promise<Buffer | 'too slow' | 'gone'>}
 */
function bytesOf(request, idleMs) {
  return new Promise((done) => {
    /** @type {Buffer[]} */
    const parts = [];
    /** @param {Buffer | 'too slow' | 'gone'} came */
    const end = (came) => {
      clearTimeout(timer);
      request.removeListener('data', take);
      done(came);
    };
    const timer = setTimeout(() => end('too slow'), idleMs);
    const take = (/** @type {Buffer} */ part) => {
      timer.refresh();
      parts.push(part);
    };
    request.on('data', take);
    request.once('end', () => end(Buffer.concat(parts)));
    request.once('error', () => end('gone'));
    request.once('close', () => end('gone'));
  });
}
