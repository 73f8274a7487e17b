// @ts-check
/** Longest body that counts as small, bytes: what people type is shorter. */
const SMALL = 65_536;

/**
 * Receives the bodies of changes before the changes wait for their turn, so that a body that never ends blocks only its own connection. All waiting bodies share
 * a limit. Small bodies have a limit of their own, so that large ones cannot block typing.
 *
 * @typedef {{ free: () => void, bytes: Promise<Buffer | 'too slow' | 'gone'> }} Body `free` gives its room back, once
 *
 * @param {{ most: number, mostSmall: number, idleMs: number }} limits bytes that all bodies together may have, and all small ones, and how long one may pause
 */
export function makeBodies({ most, mostSmall, idleMs }) {
  const held = { large: 0, small: 0 };
  return {
    /**
     * Begins to take in a body of the length that was announced; undefined where there is no room for it.
     *
     * @param {import('node:http').IncomingMessage} request
     * @param {number} length
     * @returns {Body | undefined}
     */
    take(request, length) {
      const kind = length > SMALL ? 'large' : 'small';
      if (held[kind] + length > (kind === 'large' ? most : mostSmall)) return undefined;
      held[kind] += length;
      let freed = false;
      const free = () => {
        if (!freed) held[kind] -= length;
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
