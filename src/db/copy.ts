import type { Connection, Pool, Submittable } from 'pg';

/**
 * Rows by COPY, the fastest way into the embedded database. The statement and its rows go out as one message: it has all that it is to read
 * when it begins.
 */

/** A field of a row as COPY takes it: what parts fields and rows is escaped (PostgreSQL, COPY, text format). */
const ESCAPES: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' };
const escaped = (field: string | number): string =>
  typeof field === 'number' || !/[\\\t\n\r]/.test(field)
    ? String(field)
    : field.replace(/[\\\t\n\r]/g, (sign) => ESCAPES[sign]!);

/** A row as a line of what is copied. */
export const copyLine = (fields: readonly (string | number)[]): string =>
  `${fields.map(escaped).join('\t')}\n`;

type Done = (error: Error | null) => void;
/** What the driver's connection has besides what its types say. */
type Sending = Connection & {
  stream: { cork(): void; uncork(): void };
  sendCopyFromChunk(bytes: Buffer): void;
  endCopyFrom(): void;
};

/** COPY as the driver takes it on beside its own queries. */
class Copy implements Submittable {
  private error: Error | null = null;

  constructor(
    private readonly statement: string,
    private readonly lines: string,
    private readonly callback: Done,
  ) {}

  submit(connection: Connection): void {
    const sending = connection as Sending;
    sending.stream.cork();
    sending.query(this.statement);
    sending.sendCopyFromChunk(Buffer.from(this.lines, 'utf8'));
    sending.endCopyFrom();
    sending.stream.uncork();
  }
  // It has been sent already.
  handleCopyInResponse(): void {}
  handleCommandComplete(): void {}
  handleError(error: Error): void {
    // The driver hands on nothing more once it was refused.
    this.error = error;
    this.callback(error);
  }
  handleReadyForQuery(): void {
    if (!this.error) this.callback(null);
  }
}

/** Statements of which the last is a COPY from what follows, over a connection of a pool; all in one transaction. */
export const copyOn = (pool: Pool) => async (statements: string, lines: string) => {
  const client = await pool.connect();
  let broken: Error | undefined;
  try {
    await new Promise<void>((resolve, reject) => {
      client.query(new Copy(statements, lines, (error) => (error ? reject(error) : resolve())));
    });
  } catch (error) {
    // What the database refuses leaves its connection as it was; one that broke is thrown away.
    if (!(error as { code?: string }).code) broken = error as Error;
    throw error;
  } finally {
    client.release(broken);
  }
};
