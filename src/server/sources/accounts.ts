import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { accounts, dataPlace } from '../../db';
import { reading, writing } from '../database';

const accountSchema = z.object({ name: z.string(), password: z.string() });
/** Name and password for a directory. */
export type Account = z.infer<typeof accountSchema>;

const KEY_BYTES = 32;
const IV_BYTES = 12;
const TAG_BYTES = 16;

/**
 * The key that seals accounts lies in a file of its own, which only this account of the system may read: not in the database, so that
 * no copy of that gives a password away. Made when it is first wanted; null where there is none and none is to be made.
 */
function key(make: boolean): Buffer | null {
  const file = join(dataPlace(), 'accounts.key');
  if (existsSync(file)) {
    const kept = readFileSync(file);
    if (kept.length === KEY_BYTES) return kept;
  }
  if (!make) return null;
  const made = randomBytes(KEY_BYTES);
  mkdirSync(dataPlace(), { recursive: true });
  writeFileSync(file, made, { mode: 0o600 });
  return made;
}

/** AES-256-GCM with the source as what is sealed along, so that no row serves for another source. */
function seal(source: string, account: Account): Uint8Array {
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv('aes-256-gcm', key(true)!, iv).setAAD(Buffer.from(source));
  const sealed = Buffer.concat([cipher.update(JSON.stringify(account), 'utf8'), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), sealed]);
}

function unseal(source: string, bytes: Uint8Array): Account | null {
  const by = key(false);
  if (!by) return null;
  const all = Buffer.from(bytes);
  try {
    const opened = createDecipheriv('aes-256-gcm', by, all.subarray(0, IV_BYTES))
      .setAAD(Buffer.from(source))
      .setAuthTag(all.subarray(IV_BYTES, IV_BYTES + TAG_BYTES));
    const text = Buffer.concat([opened.update(all.subarray(IV_BYTES + TAG_BYTES)), opened.final()]);
    return accountSchema.parse(JSON.parse(text.toString('utf8')));
  } catch {
    // Sealed with another key, or damaged: as good as none, and typed again.
    return null;
  }
}

/** The account that is kept for a source; null where there is none, or none that this key opens. */
export async function accountOf(source: string): Promise<Account | null> {
  const database = await reading();
  const [row] = await database.select().from(accounts).where(eq(accounts.source, source));
  return row ? unseal(source, row.sealed) : null;
}

/** Keeps the account for a source, or forgets it. */
export async function keepAccount(source: string, account: Account | null): Promise<void> {
  const database = await writing();
  if (account === null) {
    await database.delete(accounts).where(eq(accounts.source, source));
    return;
  }
  const sealed = seal(source, account);
  await database
    .insert(accounts)
    .values({ source, sealed })
    .onConflictDoUpdate({ target: accounts.source, set: { sealed, at: new Date() } });
}
