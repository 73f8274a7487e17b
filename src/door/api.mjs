// @ts-check
/* global AbortController, Headers, Request */
import { Readable } from 'node:stream';

/**
 * The HTTP interface, answered without the framework, which is for pages: its way to a handler costs more than most handlers do.
 * The application hands its dispatcher over when it has started (src/instrumentation.ts).
 */

/** @typedef {(request: Request) => Promise<Response>} Dispatch */

const shared = /** @type {{ veridonDispatch?: Dispatch }} */ (globalThis);

/** @param {string} url @returns {Dispatch | undefined} what answers that address, where it is one of the interface */
export const dispatcherOf = (url) => (/^\/api(\/|\?|$)/.test(url) ? shared.veridonDispatch : undefined);

/**
 * @param {Dispatch} dispatch
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 */
export async function answerApi(dispatch, request, response) {
  const gone = new AbortController();
  response.once('close', () => gone.abort());
  const method = request.method ?? 'GET';
  const headers = new Headers();
  for (const [name, value] of Object.entries(request.headers))
    if (typeof value === 'string') headers.set(name, value);
  const hasBody = method !== 'GET' && method !== 'HEAD';
  const answer = await dispatch(
    new Request(`http://${request.headers.host}${request.url}`, {
      method,
      headers,
      signal: gone.signal,
      ...(hasBody && { body: /** @type {any} */ (Readable.toWeb(request)), duplex: 'half' }),
    }),
  );
  const body = Buffer.from(await answer.arrayBuffer());
  response.writeHead(answer.status, {
    ...Object.fromEntries(answer.headers),
    // Nothing that is answered here is a page.
    'Content-Security-Policy': "default-src 'none'; frame-ancestors 'none'",
    'Content-Length': body.length,
    // What was refused before its body was read to the end leaves the rest of it on the connection.
    ...(hasBody && !request.complete && { Connection: 'close' }),
  });
  response.end(method === 'HEAD' ? undefined : body);
}
