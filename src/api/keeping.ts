import { z } from 'zod';
import { wantedText } from '../core/text.schema';
import { fileOperation, operation } from './operation';

export const backupSchema = z.object({
  name: z.string(),
  at: z.string(),
  bytes: z.int(),
  /** Made each day by itself, or asked for. */
  by: z.enum(['itself', 'request']),
});
export type KeptBackup = z.infer<typeof backupSchema>;

export const keepingSchema = z.object({
  /** Where everything lies, and in what. */
  folder: z.string(),
  kind: z.enum(['pglite', 'server']),
  /** Of the data directory, bytes; without what a server keeps elsewhere. */
  bytes: z.int(),
  /** Free on its disk, bytes; null where nobody can tell. */
  free: z.int().nullable(),
  /** What is kept, in the words of people, each with how many there are. */
  holds: z.array(z.object({ what: z.string(), count: z.int() })),
  /** Sealed copies whose bytes are not what was sealed; there should be none. */
  damaged: z.array(z.string()),
  backups: z.array(backupSchema),
});
export type Keeping = z.infer<typeof keepingSchema>;

/** The operations on what is kept as a whole. */
export const keepingApi = {
  keeping: operation(
    'GET',
    '/api/keeping',
    'The data directory: its size, what it holds, whether it is sound, its backups',
    {
      response: keepingSchema,
    },
  ),
  makeBackup: operation('POST', '/api/backups', 'Makes a backup of everything and keeps it', {
    /** With a passphrase it can be told, on any computer, that nobody has changed the backup; with `encrypt` nobody reads it without the passphrase. */
    body: z
      .strictObject({ passphrase: wantedText(200).optional(), encrypt: z.boolean().optional() })
      .refine(
        ({ passphrase, encrypt }) => !encrypt || passphrase !== undefined,
        'has no passphrase, which encryption needs',
      ),
    secrets: ['passphrase'],
    status: 201,
    response: backupSchema,
    problems: [507],
  }),
  backup: fileOperation('/api/backups/{name}', 'A backup as a file', {
    params: z.object({
      name: z
        .string()
        .regex(
          /^veridon-[0-9T-]{19}-(daily|asked)(-[0-9a-f]{16})?\.backup\.(gz|encrypted)$/,
          'is not a backup',
        ),
    }),
    type: 'application/octet-stream',
    problems: [404],
  }),
};
