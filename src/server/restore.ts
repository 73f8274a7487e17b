import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { open } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { sql } from 'drizzle-orm';
import { z } from 'zod';
import { readingDocument } from '../core/plan';
import { fail, ok, type Result } from '../core/result';
import { plans, schemaNumber, type Database } from '../db';
import { rowsOfTable } from './backup-rows';
import { decrypted, NotDecrypted, saltIn } from './backup-encryption';
import { codeWith } from './backup-seal';
import { rowsOf, writing } from './database';
import { inSteps } from './in-steps';
import { wantDocument } from './plan-rows';

/** A backup read again: whether all of it is there and is ours, and into an empty database. docs/backup.md has the file. */

/** Rows that are put in at once. */
const AT_ONCE = 500;
/** Longest line, characters: a plan takes 4 MB at most. */
const LONGEST_LINE = 50_000_000;

const firstSchema = z.object({
  veridon: z.literal('backup'),
  /** The format of the file. */
  format: z.literal(1),
  /** Migrations that the tables have had. */
  schema: z.int(),
  made: z.string(),
  /** Where it was made with a passphrase. */
  salt: z
    .string()
    .regex(/^[0-9a-f]{32}$/)
    .optional(),
});
const tableSchema = z.object({
  table: z.string().regex(/^[a-z_]+$/),
  columns: z.array(z.string().regex(/^[a-z_0-9]+$/)),
});
/** New names of columns, by the old ones. */
type Renamed = Readonly<Record<string, string>>;

/** What tables and columns were called before a migration; a backup of before it has the old names. */
const RENAMED: readonly { until: number; tables: Renamed; columns: Readonly<Record<string, Renamed>> }[] = [
  {
    until: 25,
    tables: { plans: 'documents' },
    columns: {
      revisions: { plan_id: 'document_id' },
      records: { plan_id: 'document_id' },
      snapshots: { plan_id: 'document_id' },
    },
  },
];

const nameIn = (renamed: Renamed, name: string) => (Object.hasOwn(renamed, name) ? renamed[name]! : name);

/** A table as a backup of those tables has it, by the names of today. */
function tableOfToday(json: unknown, schema: number): z.infer<typeof tableSchema> & { renamed: Renamed } {
  let { table, columns } = tableSchema.parse(json);
  let renamed: Renamed = {};
  for (const names of RENAMED.filter(({ until }) => schema < until)) {
    table = nameIn(names.tables, table);
    const own = names.columns[table] ?? {};
    columns = columns.map((column) => nameIn(own, column));
    renamed = { ...renamed, ...own };
  }
  return { table, columns, renamed };
}

/** A row by the names of today. */
const withNames = (row: object, renamed: Renamed): object =>
  Object.fromEntries(Object.entries(row).map(([column, value]) => [nameIn(renamed, column), value]));

/** For rows of jobs: an older backup can have several of one radio under way, and a radio has one at a time now. The others are ended. */
function endingOthers(): (row: object) => object {
  const radios = new Set<unknown>();
  return (row) => {
    const { state, radio_id: radio } = row as { state?: unknown; radio_id?: unknown };
    if (state !== 'running') return row;
    const first = !radios.has(radio);
    radios.add(radio);
    return first
      ? row
      : { ...row, state: 'failed', message: 'Veridon was stopped before this job had ended.' };
  };
}

const rowSchema = z.object({ row: z.record(z.string(), z.unknown()) });
const lastSchema = z.object({
  end: z.record(z.string(), z.int()),
  /** SHA-256 of all lines before it, hexadecimal. */
  sha256: z.string(),
  /** The code of all lines before it, where it was made with a passphrase. */
  code: z.string().optional(),
});

/**
 * The lines of a backup, unpacked. Throws where the file cannot be read to its end; whoever stops before the end leaves nothing open
 * that could fail later. A line ends with a line feed alone: other separators may stand within a text.
 */
async function* linesOf(file: string, passphrase: string | undefined): AsyncGenerator<string> {
  const unpacked = createGunzip().setEncoding('utf8');
  const salt = saltIn(await startOf(file));
  if (salt !== undefined && passphrase === undefined) throw new Encrypted();
  const bytes = createReadStream(file);
  // What goes wrong on the way destroys the end of it, which throws below.
  (salt === undefined
    ? pipeline(bytes, unpacked)
    : pipeline(decrypted(bytes as AsyncIterable<Buffer>, passphrase!, salt), unpacked)
  ).catch(() => {});
  // Of a line that is not at its end yet the parts: put together each time, a long one would be copied over and over.
  let begun: string[] = [];
  let length = 0;
  for await (const part of unpacked as AsyncIterable<string>) {
    const ends = part.split('\n');
    for (const end of ends.slice(0, -1)) {
      yield begun.join('') + end;
      [begun, length] = [[], 0];
    }
    begun.push(ends.at(-1)!);
    length += ends.at(-1)!.length;
    if (length > LONGEST_LINE) throw new TooLong();
  }
  if (length > 0) yield begun.join('');
}

class TooLong extends Error {}
class Encrypted extends Error {}

/** The first bytes of a file, by which an encrypted one is known. */
async function startOf(file: string): Promise<Buffer> {
  const opened = await open(file);
  try {
    const { buffer, bytesRead } = await opened.read(Buffer.alloc(200), 0, 200, 0);
    return buffer.subarray(0, bytesRead);
  } finally {
    await opened.close();
  }
}

/** A backup that is whole. */
export interface Checked {
  made: string;
  /** Rows by table, as the file has them. */
  counts: Record<string, number>;
  plans: number;
  /** True where its passphrase was given: nobody has changed it who does not know that. */
  verified: boolean;
}

/** Reads a backup through: that it is one, of which schema, and that all of it is there. Fails with what is wrong with it. */
export async function checkBackup(file: string, passphrase?: string): Promise<Result<Checked>> {
  const sum = createHash('sha256');
  let code: Awaited<ReturnType<typeof codeWith>> | undefined;
  const counts: Record<string, number> = {};
  let first: z.infer<typeof firstSchema> | undefined;
  let last: z.infer<typeof lastSchema> | undefined;
  let table = '';
  let known: ReturnType<typeof rowsOfTable>;
  /** The tables so far, by the names of today. */
  const tables = new Set<string>();
  let isDocuments = false;
  let plans = 0;
  let renamed: Renamed = {};
  try {
    const read = async () => {
      for await (const line of linesOf(file, passphrase)) {
        if (last) return 'There is something behind its end.';
        const json = JSON.parse(line) as Record<string, unknown>;
        if (!first) {
          const begun = firstSchema.safeParse(json);
          if (!begun.success) return 'This is no backup of Veridon.';
          first = begun.data;
          if (passphrase !== undefined && !first.salt)
            return 'This backup has no passphrase. To restore it unverified, do not set VERIDON_PASSPHRASE.';
          if (passphrase !== undefined) code = await codeWith(passphrase, first.salt!);
          if (first.schema > schemaNumber())
            return `It was made by a newer Veridon (its tables are of number ${first.schema}, these of ${schemaNumber()}). Restore it with that one.`;
        } else if ('row' in json) {
          if (!rowSchema.safeParse(json).success || !known) return 'It has a row where none can be.';
          const row = known.row.safeParse(withNames(json.row as object, renamed));
          if (!row.success) {
            const [issue] = row.error.issues;
            return `A row of table “${table}” is not valid (${issue!.path.join('.') || 'a column'}: ${issue!.message.slice(0, 100)}).`;
          }
          counts[table]!++;
          if (isDocuments && ((row.data as { type?: string }).type ?? 'plan') === 'plan') plans++;
        } else if ('table' in json) {
          // What it counts at its end has the names that it has.
          ({ table } = tableSchema.parse(json));
          const said = tableOfToday(json, first.schema);
          known = rowsOfTable(said.table);
          isDocuments = said.table === 'documents';
          const twice = tables.has(said.table);
          tables.add(said.table);
          if (!known || twice)
            return `It has the table “${table.slice(0, 40)}”${known ? ' twice' : ', which Veridon does not use'}.`;
          const { columns } = known;
          renamed = said.renamed;
          const other = said.columns.find((column) => !columns.includes(column));
          if (other !== undefined)
            return `Table “${table}” has the column “${other.slice(0, 40)}”, which Veridon does not use.`;
          counts[table] = 0;
        } else {
          last = lastSchema.parse(json);
          continue;
        }
        sum.update(line).update('\n');
        code?.update(line);
      }
      return null;
    };
    const wrong = await read();
    if (wrong !== null) return fail(`${wrong} Nothing was restored.`);
  } catch (error) {
    if (error instanceof TooLong)
      return fail(
        'A line of the file is longer than 50 MB. Veridon writes no such lines. Nothing was restored.',
      );
    if (error instanceof Encrypted)
      return fail(
        'This backup is encrypted. Set VERIDON_PASSPHRASE to its passphrase. Nothing was restored.',
      );
    if (error instanceof NotDecrypted)
      return fail('The passphrase is wrong, or the backup was changed or cut off. Nothing was restored.');
    return fail('The file is damaged or not whole: it cannot be read to its end. Nothing was restored.');
  }
  if (!first || !last) return fail('The file is not whole: its end is missing. Nothing was restored.');
  if (last.sha256 !== sum.digest('hex') || JSON.stringify(last.end) !== JSON.stringify(counts))
    return fail('The file is damaged: it does not add up. Nothing was restored.');
  if (code && !code.is(last.code ?? ''))
    return fail('The passphrase is wrong, or the backup was changed. Nothing was restored.');
  return ok({ made: first.made, counts, plans, verified: code !== undefined });
}

/**
 * Puts all that a backup has into the database that is open, which must be empty but for what Veridon brings itself. Read through before
 * the first row is touched; then whole or not at all. Fails with the reason.
 */
export async function restoreBackup(
  file: string,
  passphrase?: string,
): Promise<Result<Checked & { unreadable: string[] }>> {
  const checked = await checkBackup(file, passphrase);
  if (!checked.ok) return checked;
  const database = await writing();
  const filled = await rowsOf<{ n: number }>(
    database,
    sql`select ((select count(*) from plans) + (select count(*) from radios) + (select count(*) from copies))::int as n`,
  );
  if (filled[0]!.n > 0)
    return fail(
      'There are plans or radios here already. A backup is restored into an empty data directory: name one that is.',
    );
  await database.transaction(async (transaction) => {
    let put: ((rows: unknown[]) => Promise<unknown>) | undefined;
    let waiting: unknown[] = [];
    const flush = async () => {
      if (put && waiting.length > 0) await put(waiting);
      waiting = [];
    };
    let schema = 0;
    let renamed: Renamed = {};
    let oneJobARadio = (row: object) => row;
    for await (const line of linesOf(file, passphrase)) {
      const json = JSON.parse(line) as Record<string, unknown>;
      if ('veridon' in json) ({ schema } = firstSchema.parse(json));
      else if ('row' in json) {
        waiting.push(oneJobARadio(withNames(json.row as object, renamed)));
        if (waiting.length >= AT_ONCE) await flush();
      } else if ('table' in json) {
        await flush();
        const { table, columns, ...said } = tableOfToday(json, schema);
        renamed = said.renamed;
        oneJobARadio = table === 'jobs' ? endingOthers() : (row) => row;
        // What a later schema has besides takes its usual value.
        const names = sql.join(
          columns.map((column) => sql.identifier(column)),
          sql`, `,
        );
        const name = sql.identifier(table);
        await transaction.execute(sql`delete from ${name}`);
        put = (rows) =>
          transaction.execute(
            sql`insert into ${name} (${names}) select ${names} from jsonb_populate_recordset(null::${name}, ${JSON.stringify(rows)}::jsonb)`,
          );
      }
    }
    await flush();
  });
  return ok({ ...checked.value, unreadable: await unreadablePlans(database) });
}

/** What is wrong with plans that cannot be read, a sentence each. */
async function unreadablePlans(database: Database): Promise<string[]> {
  const rows = await database.select({ id: plans.id, name: plans.name }).from(plans);
  const faults: string[] = [];
  for (const { id, name } of rows) {
    const { document } = await wantDocument(database, id, { removed: true });
    const read = await inSteps(readingDocument(document));
    if (!read.ok) faults.push(`“${name}” cannot be read: ${read.reason}`);
  }
  return faults;
}
