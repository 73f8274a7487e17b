import { existsSync, readFileSync } from 'node:fs';
import { z } from 'zod';
import { keepFile } from '../keep';
import { noPeople, type PeopleSide } from './device-people';

/** The memory for people of a radio as a file of its own: it is as large as a hundred plans, and changes seldom. */

const keptSchema = z.object({
  /** All bytes in base64, as they were closed or as they came. */
  bytes: z.string(),
  write: z.object({ sum: z.number(), length: z.number(), blocks: z.array(z.string().nullable()) }).nullable(),
});

const bytesIn = (base64: string) => new Uint8Array(Buffer.from(base64, 'base64'));
const base64 = (bytes: Uint8Array) => Buffer.from(bytes).toString('base64');

export class PeopleFile {
  /** What the file has now. */
  private has: Pick<PeopleSide, 'bytes' | 'write'>;

  constructor(private readonly file: string) {
    this.has = noPeople();
  }

  read(): PeopleSide {
    if (!existsSync(this.file)) return noPeople();
    const { bytes, write } = keptSchema.parse(JSON.parse(readFileSync(this.file, 'utf8')));
    const people = noPeople(
      bytesIn(bytes),
      write && { ...write, blocks: write.blocks.map((block) => (block === null ? null : bytesIn(block))) },
    );
    this.has = people;
    return people;
  }

  /** Keeps it where it has changed; not block by block while it is being written. */
  keep({ bytes, write, open }: PeopleSide): void {
    const under = open && write !== null;
    if (under || (bytes === this.has.bytes && write === this.has.write)) return;
    this.has = { bytes, write };
    const blocks = write?.blocks.map((block) => block && base64(block)) ?? [];
    keepFile(this.file, JSON.stringify({ bytes: base64(bytes), write: write && { ...write, blocks } }));
  }
}
