import type { IncomingMessage, ServerResponse } from 'node:http';
import { z } from 'zod';
import { directoryFaultSchema } from '../directory-faults';
import { TOWNS } from '../register/gazetteer';

/** How many stand in the roll where nothing else is said. */
export const ROLL_PEOPLE = 250_000;
/** People that are written at once. */
const AT_ONCE = 2000;

const FIRST = (
  'Wenna Torrin Maeva Jorrin Elsin Bram Ottis Ferra Lowen Marrick Sennet Ailith Corwen Dagna Ivo Perrin Rilla Ulric Yestin Zenna ' +
  'Hedra Orsin Pasco Tegen Ruan Keren Madern Eseld Cador Gwella'
).split(' ');
const LAST_BEGINS = 'Dask Harr Thorn Merr Quill Sall Penn Wick Ash Gar Tref Holl Skerr Rav Stenn'.split(' ');
const LAST_ENDS = 'ow ick mere by ell ard ing ton aven ey'.split(' ');

interface Listed {
  id: number;
  call: string;
  first: string;
  last: string;
  town: string;
  island: string;
}

const letters = (n: number) =>
  String.fromCharCode(65 + (n % 26), 65 + (Math.floor(n / 26) % 26), 65 + (Math.floor(n / 676) % 26));

/** The nth of the roll, the same on every machine. Who has several radios has several numbers. */
export function listed(n: number): Listed {
  const person = n % 35_000;
  // Spread, so that neighbours in the roll are not alike.
  const mixed = (person * 7919) % 35_000;
  const { name: town, island } = TOWNS[Math.floor(mixed / 7) % TOWNS.length]!;
  const prefix = island === 'Ullsmere' || island === 'Brannoch' ? 'Q7' : 'Q8';
  return {
    // Every sixth number is nobody's.
    id: 1_000_000 + n + Math.floor(n / 5),
    call: prefix + letters(Math.floor(mixed / 2)),
    first: FIRST[mixed % FIRST.length]!,
    last:
      LAST_BEGINS[Math.floor(mixed / 30) % LAST_BEGINS.length]! +
      LAST_ENDS[Math.floor(mixed / 450) % LAST_ENDS.length]!,
    town,
    island,
  };
}

/** Rows as a roll has them that nobody looked after. */
const BAD_ROWS: unknown[] = [
  { id: 1_000_000, call: 'Q7AAA', first: 'Doubled', last: '', town: '', island: '' },
  { id: 16_777_216, call: 'Q7AAB', first: 'Beyond', last: '', town: '', island: '' },
  { id: 0, call: 'Q7AAC', first: 'Nobody', last: '', town: '', island: '' },
  { id: '1299991', call: 'Q7AAD', first: 'Written', last: 'Asatext', town: '', island: '' },
  { id: 1_299_992, call: 'Q7AAE', first: 'L'.repeat(10_000), last: '', town: '', island: '' },
  { id: 1_299_993, call: 'Q7AAF', first: 'Con\u0000trol\u0007', last: 'Sign\ud800s', town: '', island: '' },
  { id: 1_299_994, call: '', first: 'No', last: 'Call', town: '', island: '' },
  'not a row',
  null,
  [1, 2],
];

/** The roll can also stop in the middle of its answer, after so many people, until something else is ordered. */
export const rollFaultSchema = directoryFaultSchema.or(
  z.strictObject({ kind: z.literal('stall'), afterPeople: z.int().min(0) }),
);
type RollFault = z.infer<typeof rollFaultSchema>;

export const rollChangesSchema = z.strictObject({
  put: z
    .array(
      z.object({
        id: z.int(),
        call: z.string(),
        first: z.string(),
        last: z.string(),
        town: z.string(),
        island: z.string(),
      }),
    )
    .default([]),
  drop: z.array(z.int()).default([]),
});

/** The Ident Roll: everybody who has a number, as one large JSON file. What answers under /roll. */
export class RollService {
  private fault: RollFault = { kind: 'none' };
  /** Answers that have stalled; each goes on when it is called. */
  private stalled: (() => void)[] = [];
  private readonly put = new Map<number, Listed>();
  private readonly drop = new Set<number>();
  private changes = 0;
  /** The rows as they are written, so many at once; put together once, as a file that lies there. */
  private readonly written = new Map<number, Buffer>();

  constructor(private readonly people = ROLL_PEOPLE) {}

  order(fault: RollFault): void {
    this.fault = fault;
    for (const goOn of this.stalled.splice(0)) goOn();
  }

  /** What its keepers change: people put in or changed, and numbers that are given back. */
  change({ put, drop }: z.infer<typeof rollChangesSchema>): void {
    for (const one of put) this.put.set(one.id, one);
    for (const id of drop) this.drop.add(id);
    this.changes++;
    this.written.clear();
  }

  /** Answers `/roll/people.json`; false where the path is another. */
  async answer(url: URL, request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    if (url.pathname !== '/roll/people.json') return false;
    const { kind } = this.fault;
    if (kind === 'refuse') {
      request.destroy();
      return true;
    }
    if (this.fault.kind === 'slow')
      await new Promise((resolve) => setTimeout(resolve, (this.fault as { ms: number }).ms));
    response.setHeader('Content-Type', 'application/json');
    if (kind === 'rubbish') {
      response.end('<html>The roll is being copied out</html>');
      return true;
    }
    let gone = false;
    response.on('close', () => (gone = true));
    const write = async (text: string | Buffer) => {
      if (!gone && !response.write(text))
        await new Promise<void>((resolve) => {
          response.once('drain', resolve);
          response.once('close', resolve);
        });
    };
    const made = `2026-11-${String(20 + (this.changes % 8)).padStart(2, '0')}T04:00:00Z`;
    await write(
      `{"roll":"Ident Roll of the Orrin Isles","made":"${made}","${kind === 'other shape' ? 'listed' : 'people'}":[`,
    );
    let any = false;
    const say = async (rows: Buffer) => {
      if (rows.length === 0) return;
      if (any) await write(',\n');
      any = true;
      await write(rows);
    };
    const rowsAs = (rows: unknown[]) => Buffer.from(rows.map((row) => JSON.stringify(row)).join(',\n'));
    const people = kind === 'empty' ? 0 : this.people;
    for (let n = 0; n < people && !gone; n += AT_ONCE) {
      if (kind === 'cut off' && n >= people / 2) {
        setTimeout(() => request.socket.destroy(), 20);
        return true;
      }
      if (this.fault.kind === 'stall' && n >= this.fault.afterPeople)
        await new Promise<void>((goOn) => {
          this.stalled.push(goOn);
          response.once('close', goOn);
        });
      let some = this.written.get(n);
      if (!some) {
        const rows = Array.from({ length: Math.min(AT_ONCE, people - n) }, (_, at) => listed(n + at));
        some = rowsAs(rows.filter(({ id }) => !this.drop.has(id) && !this.put.has(id)));
        this.written.set(n, some);
      }
      await say(some);
    }
    if (people > 0) await say(rowsAs([...this.put.values()].filter(({ id }) => !this.drop.has(id))));
    if (kind === 'bad rows') await say(rowsAs(BAD_ROWS));
    response.end(']}');
    return true;
  }
}
