// @ts-check
/* global AbortController */
import { endAnswer } from './door.mjs';

/**
 * The HTTP interface, answered without the framework, which is for pages: its way to a handler costs more than most handlers do.
 * The application hands its dispatcher over when it has started (src/instrumentation.ts).
 */

/**
 * @typedef {{ status: number, headers: Record<string, string>, body: string | Uint8Array | AsyncIterable<string> }} Outgoing
 * @typedef {{ method: string, url: string, header: (name: string) => string | null, bytes: (most: number) => Promise<Uint8Array | null>, gone: AbortSignal }} Incoming
 * @typedef {(incoming: Incoming) => Promise<Outgoing>} Dispatch
 */

/** @type {Dispatch | undefined} */
let dispatcher;

/**
 * Settles when the application has started and handed its dispatcher over. Before that nobody is let in: the framework would load
 * the whole interface a second time to answer.
 */
export const started = /** @type {Promise<void>} */ (
  new Promise((done) =>
    Object.assign(globalThis, {
      veridonStarted: (/** @type {Dispatch} */ dispatch) => {
        dispatcher = dispatch;
        done();
      },
    }),
  )
);

/** @param {string} url @returns {Dispatch | undefined} what answers that address, where it is one of the interface */
export const dispatcherOf = (url) => (/^\/api(\/|\?|$)/.test(url) ? dispatcher : undefined);

/**
 * Sends what comes piece by piece, as it comes, until it ends or whoever asked has gone. Nobody else waits for it.
 *
 * @param {AsyncIterable<string>} parts
 * @param {import('node:http').ServerResponse} response
 * @param {boolean} headAlone
 */
async function pour(parts, response, headAlone) {
  const iterator = parts[Symbol.asyncIterator]();
  if (headAlone) {
    response.end();
    return void (await iterator.return?.());
  }
  // Nobody is to hold pieces back to send several at once.
  response.flushHeaders();
  response.once('close', () => void iterator.return?.());
  for (let next = await iterator.next(); !next.done && !response.closed; next = await iterator.next())
    response.write(next.value);
  response.end();
}

const NOTHING = new Uint8Array();

/**
 * @param {Dispatch} dispatch
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 * @param {Uint8Array} [sent] the body, where one was taken in
 */
export async function answerApi(dispatch, request, response, sent = NOTHING) {
  const { method = 'GET', url = '/' } = request;
  /** @type {AbortController | undefined} */
  let leaving;
  const { status, headers, body } = await dispatch({
    method,
    url,
    header(name) {
      const value = request.headers[name.toLowerCase()];
      return typeof value === 'string' ? value : null;
    },
    bytes: async (most) => (sent.length > most ? null : sent),
    // Made where somebody wants to hear of it: of most requests nobody does.
    get gone() {
      if (!leaving) {
        const made = (leaving = new AbortController());
        if (response.closed) made.abort();
        else response.once('close', () => made.abort());
      }
      return leaving.signal;
    },
  });
  const whole = typeof body === 'string' || body instanceof Uint8Array;
  response.writeHead(status, {
    ...headers,
    // Nothing that is answered here is a page.
    'Content-Security-Policy': "default-src 'none'; frame-ancestors 'none'",
    ...(whole && { 'Content-Length': Buffer.byteLength(body) }),
    // A body that nobody wanted stays on the connection.
    ...(!request.complete && { Connection: 'close' }),
  });
  if (!whole) return void (await pour(body, response, method === 'HEAD'));
  endAnswer(response, method === 'HEAD' ? undefined : body);
}
