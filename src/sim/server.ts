import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { join } from 'node:path';
import { z } from 'zod';
import { ANSWER_HEADERS, refusalOf, refuse, refuseUnreadable } from '../door/door.mjs';
import { faultSchema, handleSchema } from './bench/handles';
import { Station, type Silence } from './bench/station';
import { UNITS } from './bench/units';
import { PAGE_POLICY, pagePart } from './bench/page';
import { BoardService } from './board/service';
import { benchKey } from './keep';
import { directoryFaultSchema } from './directory-faults';
import { LedgerService } from './ledger/service';
import { registerChangesSchema, RegisterService } from './register/service';
import { rollChangesSchema, rollFaultSchema, RollService } from './roll/service';

export interface SimOptions {
  port: number;
  /** Where the radios' memories are kept. */
  folder: string;
  /** How much faster than real the lines are. */
  speed: number;
  /** The radio whose cable is in when its memory is made. */
  plugged?: string | undefined;
  /** How many stand in the Ident Roll; all of them where nothing is said. */
  people?: number | undefined;
  /** How many key-ups the Heard Board knows; all of them where nothing is said. */
  keyUps?: number | undefined;
  /** What counts the silences on the lines; a timer where nothing is said. */
  silence?: Silence | undefined;
}

/** A bench that runs. */
export interface Sim {
  port: number;
  /** What whoever handles it shows. */
  key: string;
  /** True while bytes are on one of its lines. */
  busy: () => boolean;
  /** Looks at once whether a card is to be taken out of the reader. */
  lookAtCards: () => void;
  close: () => void;
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

const METHODS = (path: string) =>
  path === '/' || path.startsWith('/page/') ? ['GET', 'HEAD'] : ['GET', 'HEAD', 'POST'];

/** True where two texts are alike, in a time that does not tell how far. */
const alike = (a: string, b: string) => {
  const [x, y] = [a, b].map((text) => createHash('sha256').update(text).digest());
  return timingSafeEqual(x!, y!);
};

/** The bench and the directories behind one HTTP port of 127.0.0.1. */
export function startSim({
  port,
  folder,
  speed,
  plugged,
  people,
  keyUps,
  silence,
}: SimOptions): Promise<Sim> {
  const register = new RegisterService();
  const hears = (hz: number) => register.onAir(hz, Date.now());
  const stations = new Map(
    UNITS.map((unit) => [unit.id, new Station(unit, folder, speed, hears, unit.id === plugged, silence)]),
  );
  const ledger = new LedgerService();
  const roll = new RollService(people);
  const board = new BoardService(keyUps, people);

  // Veridon reads the one from the bench's folder; the bench's own page is handed the other, which dies with the process.
  const keys = [benchKey(folder), randomBytes(24).toString('hex')];
  const mayHandle = ({ headers }: IncomingMessage) => {
    const shown = /^Bearer (\S+)$/.exec(headers.authorization ?? '')?.[1] ?? '';
    return keys.some((key) => alike(key, shown));
  };

  const json = (response: ServerResponse, status: number, body: unknown) => {
    response.writeHead(status, { 'Content-Type': 'application/json', 'Cache-Control': 'no-store' });
    response.end(JSON.stringify(body));
  };

  const answer = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    const knock = { method: request.method ?? '', url: request.url ?? '', headers: request.headers };
    const refusal = refusalOf(knock, METHODS);
    if (refusal) return refuse(response, refusal);
    for (const [name, value] of Object.entries(ANSWER_HEADERS)) response.setHeader(name, value);
    const url = new URL(knock.url, 'http://127.0.0.1');
    // The directories are open to everybody, like those outside; the bench is not.
    if (request.method !== 'POST' && (await register.answer(url, request, response))) return;
    if (request.method !== 'POST' && (await ledger.answer(url, request, response))) return;
    if (request.method !== 'POST' && (await roll.answer(url, request, response))) return;
    if (request.method !== 'POST' && (await board.answer(url, request, response))) return;
    if (request.method !== 'POST') {
      const part = pagePart(url.pathname, keys[1]!);
      if (part) {
        response.writeHead(200, { 'Content-Type': part.type, 'Cache-Control': 'no-store', ...PAGE_POLICY });
        return void response.end(part.body);
      }
    }
    if (!mayHandle(request))
      return refuse(response, {
        status: 401,
        kind: 'key-wanted',
        title: 'Only for Veridon',
        detail: `The bench is handled on its own page, or with the key that lies in ${join(folder, 'key')}.`,
      });
    if (request.method === 'GET' && url.pathname === '/bench/ports')
      return json(response, 200, {
        ports: [...stations.values()].flatMap((station) => station.port() ?? []),
      });
    if (request.method === 'GET' && url.pathname === '/bench/radios')
      return json(response, 200, { radios: [...stations.values()].map((station) => station.look()) });
    if (request.method !== 'POST') return json(response, 404, { error: 'There is nothing here.' });
    const body = await bodyOf(request);
    const faulty = {
      '/register/faults': register,
      '/ledger/faults': ledger,
      '/heard-board/faults': board,
    }[url.pathname];
    if (faulty) {
      faulty.order(directoryFaultSchema.parse(body));
      return json(response, 200, {});
    }
    if (url.pathname === '/roll/faults') {
      roll.order(rollFaultSchema.parse(body));
      return json(response, 200, {});
    }
    if (url.pathname === '/roll/changes') {
      roll.change(rollChangesSchema.parse(body));
      return json(response, 200, {});
    }
    if (url.pathname === '/register/changes')
      return register.change(registerChangesSchema.parse(body))
        ? json(response, 200, {})
        : json(response, 400, { error: 'A row that is new wants every field.' });
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

  server.on('clientError', refuseUnreadable);
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      resolve({
        port: typeof address === 'object' && address ? address.port : port,
        key: keys[0]!,
        busy: () => [...stations.values()].some((station) => station.busy),
        lookAtCards: () => [...stations.values()].forEach((station) => station.lookAtCard()),
        close: () => {
          for (const station of stations.values()) station.close();
          server.close();
          server.closeAllConnections();
        },
      });
    });
  });
}
