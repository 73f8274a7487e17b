import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { z } from 'zod';
import { faultSchema, handleSchema, Station } from './bench/station';
import { UNITS } from './bench/units';
import { benchPage } from './bench/page';
import { registerFaultSchema, RegisterService } from './register/service';

export interface SimOptions {
  port: number;
  /** Where the radios' memories are kept. */
  folder: string;
  /** How much faster than real the lines are. */
  speed: number;
}

const LONGEST_BODY = 10_000;

async function bodyOf(request: IncomingMessage): Promise<unknown> {
  let text = '';
  for await (const chunk of request) {
    text += String(chunk);
    if (text.length > LONGEST_BODY) throw new SyntaxError('too long');
  }
  return JSON.parse(text);
}

/** Only this machine's own names for itself: a page from elsewhere must not turn the knobs. */
function isLocal(request: IncomingMessage): boolean {
  const local = (value: string) => /^(127\.0\.0\.1|localhost)(:\d+)?$/.test(value);
  const { origin } = request.headers;
  return (
    local(request.headers.host ?? '') && (origin === undefined || local(origin.replace(/^http:\/\//, '')))
  );
}

/** The bench and the Relay Register behind one HTTP port of 127.0.0.1. */
export function startSim({ port, folder, speed }: SimOptions): Promise<{ port: number; close: () => void }> {
  const stations = new Map(UNITS.map((unit) => [unit.id, new Station(unit, folder, speed)]));
  const register = new RegisterService();

  const json = (response: ServerResponse, status: number, body: unknown) => {
    response.writeHead(status, { 'Content-Type': 'application/json', 'Cache-Control': 'no-store' });
    response.end(JSON.stringify(body));
  };

  const answer = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    if (!isLocal(request)) return json(response, 403, { error: 'Only from this machine.' });
    const url = new URL(request.url ?? '/', 'http://127.0.0.1');
    if (await register.answer(url, request, response)) return;
    if (request.method === 'GET' && url.pathname === '/') {
      response.writeHead(200, { 'Content-Type': 'text/html; charset=utf-8' });
      response.end(benchPage());
      return;
    }
    if (request.method === 'GET' && url.pathname === '/bench/ports')
      return json(response, 200, {
        ports: [...stations.values()].flatMap((station) => station.port() ?? []),
      });
    if (request.method === 'GET' && url.pathname === '/bench/radios')
      return json(response, 200, { radios: [...stations.values()].map((station) => station.look()) });
    if (request.method !== 'POST') return json(response, 404, { error: 'There is nothing here.' });
    const body = await bodyOf(request);
    if (url.pathname === '/register/faults') {
      register.order(registerFaultSchema.parse(body));
      return json(response, 200, {});
    }
    const [, id, faults] = /^\/bench\/radios\/([a-z0-9-]+)(\/faults)?$/.exec(url.pathname) ?? [];
    const station = id === undefined ? undefined : stations.get(id);
    if (!station) return json(response, 404, { error: 'There is no such radio on the bench.' });
    if (faults) station.order(faultSchema.parse(body));
    else await station.handle(handleSchema.parse(body));
    json(response, 200, station.look());
  };

  const server = createServer((request, response) => {
    answer(request, response).catch((error: unknown) => {
      if (response.headersSent) return response.destroy();
      const wrong = error instanceof z.ZodError ? z.prettifyError(error) : 'That is not JSON.';
      json(response, error instanceof z.ZodError || error instanceof SyntaxError ? 400 : 500, {
        error: wrong,
      });
    });
  });

  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      resolve({
        port: typeof address === 'object' && address ? address.port : port,
        close: () => {
          for (const station of stations.values()) station.close();
          server.close();
          server.closeAllConnections();
        },
      });
    });
  });
}
