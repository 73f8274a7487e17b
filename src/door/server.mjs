// @ts-check
// The application: Next.js behind the door. `node src/door/server.mjs PORT`; it listens on 127.0.0.1 only.
import { createServer } from 'node:http';
import next from 'next';
import { ANSWER_HEADERS, cleanHeaders, methodsOfVeridon, refusalOf, refuse } from './door.mjs';

const hostname = '127.0.0.1';
const port = Number(process.argv[2] ?? process.env.VERIDON_PORT ?? 4320);
process.env.NODE_ENV ??= 'production';

const server = createServer((request, response) => {
  const knock = { method: request.method ?? '', url: request.url ?? '', headers: request.headers };
  const refusal = refusalOf(knock, methodsOfVeridon);
  if (refusal) return refuse(response, refusal);
  cleanHeaders(request.headers);
  for (const [name, value] of Object.entries(ANSWER_HEADERS)) response.setHeader(name, value);
  handle(request, response).catch((/** @type {unknown} */ error) => {
    console.error(error);
    if (response.headersSent) response.destroy();
    else
      refuse(response, {
        status: 500,
        kind: 'mistake',
        title: 'Veridon made a mistake',
        detail: 'What you asked for was not done. Try again; if it happens again, restart Veridon.',
      });
  });
});
// A request that trickles in holds its connection no longer than this, ms.
server.requestTimeout = 30_000;
server.headersTimeout = 10_000;
server.on('clientError', (_error, socket) => {
  if (socket.writable)
    socket.end('HTTP/1.1 400 Bad Request\r\nConnection: close\r\nContent-Length: 0\r\n\r\n');
});
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
server.listen(port, hostname, () => console.log(`Veridon ready at http://${hostname}:${port}`));
