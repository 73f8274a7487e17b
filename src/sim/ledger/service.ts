import { createHash, timingSafeEqual } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { z } from 'zod';
import { meet, type DirectoryFault } from '../directory-faults';
import { ISLANDS } from '../register/gazetteer';
import { generateLedger } from './generate';

/** The account of the demo: name and password, as the ledger's office would hand them out. */
export const LEDGER_ACCOUNT = { name: 'keeper', password: 'harbour lights' };

const querySchema = z.object({
  area: z.string().max(40),
  from: z.coerce.number().int().min(0).default(0),
});

const PAGE = 80;

const alike = (a: string, b: string) => {
  const [x, y] = [a, b].map((text) => createHash('sha256').update(text).digest());
  return timingSafeEqual(x!, y!);
};

/** The Isles Ledger: services by area, for those who have an account. What answers under /ledger. */
export class LedgerService {
  private readonly rows = generateLedger();
  private fault: DirectoryFault = { kind: 'none' };

  order(fault: DirectoryFault): void {
    this.fault = fault;
  }

  /** Answers `/ledger/areas` and `/ledger/services?area=`; false where the path is neither. */
  async answer(url: URL, request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    if (url.pathname !== '/ledger/areas' && url.pathname !== '/ledger/services') return false;
    const [, shown = ''] = /^Basic (\S+)$/.exec(request.headers.authorization ?? '') ?? [];
    const account = Buffer.from(shown, 'base64').toString('utf8');
    if (!alike(account, `${LEDGER_ACCOUNT.name}:${LEDGER_ACCOUNT.password}`)) {
      response.writeHead(401, {
        'Content-Type': 'application/json',
        'WWW-Authenticate': 'Basic realm="Isles Ledger"',
      });
      response.end(JSON.stringify({ error: 'Name or password is wrong.' }));
      return true;
    }
    const query = querySchema.safeParse(Object.fromEntries(url.searchParams));
    if (url.pathname === '/ledger/services' && !query.success) {
      response.writeHead(400, { 'Content-Type': 'application/json' });
      response.end(JSON.stringify({ error: 'area is wanted' }));
      return true;
    }
    await meet(this.fault, request, response, () =>
      url.pathname === '/ledger/areas'
        ? { areas: ISLANDS.map(({ name }) => name) }
        : this.services(query.data!.area, query.data!.from),
    );
    return true;
  }

  private services(area: string, from: number) {
    const found = this.fault.kind === 'empty' ? [] : this.rows.filter((row) => row.area === area);
    const services: unknown[] = found.slice(from, from + PAGE);
    if (this.fault.kind === 'bad rows') services.splice(0, 2, { number: 'IL/0' }, 'not a row');
    return { area, next: from + PAGE < found.length ? from + PAGE : null, count: found.length, services };
  }
}
