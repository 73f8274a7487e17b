// @ts-check
// The application: Next.js behind the door. `node src/door/server.mjs PORT`; it listens on 127.0.0.1 only.
import { createServer } from 'node:http';
import { setFlagsFromString } from 'node:v8';
import './database-ahead.mjs';
import next from 'next';
import { answerApi, dispatcherOf, started } from './api.mjs';
import { makeBodies } from './bodies.mjs';
import { laneOf, makeTurns } from './turns.mjs';
import {
  ANSWER_HEADERS,
  cleanHeaders,
  methodsOfVeridon,
  refusalOf,
  refuse,
  refuseUnreadable,
} from './door.mjs';

// Rather collect garbage a little more often than let the heap grow to twice what is in use.
setFlagsFromString('--heap-growing-percent=40');

const hostname = '127.0.0.1';
const port = Number(process.argv[2] ?? process.env.VERIDON_PORT ?? 4320);
process.env.VERIDON_PORT = String(port);
process.env.NODE_ENV ??= 'production';

/** Bodies are taken in before their changes wait: all together so many bytes, and none that pauses for longer, ms. */
const bodies = makeBodies({
  most: 200_000_000,
  mostSmall: 20_000_000,
  idleMs: Number(process.env.VERIDON_BODY_IDLE_MS ?? 10_000),
});
/** Changes that are worked on at once; the others wait here, where they cost nothing but their bodies. */
const inTurn = makeTurns({ atOnce: 16, ofOne: 4, mostWaiting: 1000 });

/**
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 * @param {Buffer} [body]
 */
async function serve(request, response, body) {
  try {
    const dispatch = dispatcherOf(request.url ?? '');
    await (dispatch ? answerApi(dispatch, request, response, body) : handle(request, response));
  } catch (error) {
    console.error(error);
    if (response.headersSent) response.destroy();
    else
      refuse(response, {
        status: 500,
        kind: 'mistake',
        title: 'Veridon made a mistake',
        detail: 'What you asked for was not done. Try again; if it happens again, restart Veridon.',
      });
  }
}

const server = createServer((request, response) => {
  const { method = '', url = '', headers } = request;
  const refusal = refusalOf({ method, url, headers }, methodsOfVeridon);
  if (refusal) return refuse(response, refusal);
  cleanHeaders(headers);
  for (const [name, value] of Object.entries(ANSWER_HEADERS)) response.setHeader(name, value);
  if (method === 'GET' || method === 'HEAD') return void serve(request, response);
  void change(request, response);
});

/**
 * Does a change: its body comes first, then its turn.
 *
 * @param {import('node:http').IncomingMessage} request
 * @param {import('node:http').ServerResponse} response
 */
async function change(request, response) {
  const { url = '', headers } = request;
  const tooMany = (/** @type {string} */ detail) =>
    refuse(response, { status: 429, kind: 'too-many', title: 'Too many changes at once', detail });
  const body = bodies.take(request, Number(headers['content-length'] ?? 0));
  if (!body) return tooMany('Too many changes are waiting. Nothing was changed. Try again later.');
  const bytes = await body.bytes;
  if (!Buffer.isBuffer(bytes)) {
    body.free();
    return bytes === 'gone'
      ? undefined
      : refuse(response, {
          status: 408,
          kind: 'too-slow',
          title: 'Too slow',
          detail: 'The request did not come in time. Nothing was changed; send it again.',
        });
  }
  const work = async () => {
    // Who asked may have gone while it waited: nothing has been done, and nothing will be.
    if (!response.closed) await serve(request, response, bytes);
    body.free();
  };
  const key = headers['idempotency-key'];
  if (inTurn(laneOf(typeof key === 'string' ? key : undefined, url), work)) return;
  body.free();
  tooMany('A thousand changes of yours are waiting. Nothing was changed. Try again later.');
}

// A request that trickles in holds its connection no longer than this, ms; it is also how long one may wait for its turn.
server.requestTimeout = 120_000;
server.headersTimeout = 10_000;
server.on('clientError', refuseUnreadable);
server.on('error', (/** @type {NodeJS.ErrnoException} */ error) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${port} of ${hostname} is taken by another program. Set VERIDON_PORT to a free one.`
      : `Veridon could not start: ${error.message}`,
  );
  process.exit(1);
});

const app = next({ dev: false, hostname, port, httpServer: server });
const handle = app.getRequestHandler();
await app.prepare();
await started;
// A script that opens a thousand connections at once must not make others wait for theirs: what does not fit into the row of
// those that have not been taken yet tries again after seconds.
server.listen({ port, host: hostname, backlog: 4096 }, () => {
  console.log(`Veridon ready at http://${hostname}:${port}`);
  process.send?.('ready');
});
