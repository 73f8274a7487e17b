import { existsSync, readFileSync } from 'node:fs';
import { z } from 'zod';

/** A radio of the bench as it lies on disk. */
const stationSchema = z.object({
  plugged: z.boolean(),
  on: z.boolean(),
  slot: z.number(),
  battery: z.number(),
  halfWritten: z.boolean(),
  /** The bytes in base64. */
  memory: z.string(),
  /** The socket that its cable is in. */
  cable: z.int().default(0),
  /** Writes on a block link that broke off, by module; what came of them, in base64. */
  writes: z
    .array(z.object({ sum: z.number(), received: z.string(), taken: z.array(z.boolean()) }).nullable())
    .default([]),
});

const bytesIn = (base64: string) => new Uint8Array(Buffer.from(base64, 'base64'));

/** What is on disk of a radio, or undefined. Older versions saved it in two files, of which a power cut could find one new and one old. */
export function readStation(file: (kind: 'radio' | 'bin' | 'json') => string) {
  const read = (path: string) => JSON.parse(readFileSync(path, 'utf8')) as unknown;
  if (existsSync(file('radio'))) {
    const { memory, writes, ...rest } = stationSchema.parse(read(file('radio')));
    return {
      ...rest,
      memory: bytesIn(memory),
      writes: writes.map((write) => write && { ...write, received: bytesIn(write.received) }),
    };
  }
  if (!existsSync(file('bin')) || !existsSync(file('json'))) return undefined;
  const state = stationSchema.omit({ memory: true }).parse(read(file('json')));
  return { ...state, writes: [], memory: new Uint8Array(readFileSync(file('bin'))) };
}
