import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import {
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  writeSync,
} from 'node:fs';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { dataPlace, secrets } from '../db';
import { reading, writing } from './database';
import { Problem } from './problem';

/**
 * Passwords and other secrets, each by an id. The table has them encrypted; the key is in a file of the data directory that only this account of the system may read, or
 * in VERIDON_SECRET_KEY. No secret is part of a document, a backup, a log or an answer of the API.
 */

/** What the secret is for, a slash, and a name: `directory/isles-ledger`. */
export type SecretId = `directory/${string}`;

const KEY_BYTES = 32;
const IV_BYTES = 12;
const TAG_BYTES = 16;

const keyFile = () => join(dataPlace(), 'secrets.key');
/** The name of the file before it had the key of all secrets. */
const olderKeyFile = () => join(dataPlace(), 'accounts.key');

/** The key of VERIDON_SECRET_KEY; undefined where it is not set. Throws a Problem if it is no key. */
export function keyOfEnvironment(): Buffer | undefined {
  const text = process.env.VERIDON_SECRET_KEY;
  if (!text) return undefined;
  const key = Buffer.from(text, 'base64');
  // Decoding skips what is not Base64, so the text is compared too.
  if (key.length === KEY_BYTES && key.toString('base64') === text.trim()) return key;
  throw new Problem(
    503,
    'data-directory',
    'VERIDON_SECRET_KEY is not a key',
    `VERIDON_SECRET_KEY must be ${KEY_BYTES} bytes in Base64, 44 characters. Set another one, or remove it; no secret was read or saved.`,
  );
}

/** The file appears under its name when it is on disk as a whole: half a key would make every secret unreadable. */
function makeKey(): Buffer {
  const key = randomBytes(KEY_BYTES);
  mkdirSync(dataPlace(), { recursive: true });
  const making = `${keyFile()}.making`;
  const file = openSync(making, 'w', 0o600);
  try {
    writeSync(file, key);
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
  renameSync(making, keyFile());
  // After a power cut the name is there too.
  const folder = openSync(dataPlace(), 'r');
  try {
    fsyncSync(folder);
  } finally {
    closeSync(folder);
  }
  return key;
}

/** The key; with `make` it is made if there is none. */
function secretKey(make: boolean): Buffer | null {
  const given = keyOfEnvironment();
  if (given) return given;
  if (!existsSync(keyFile()) && existsSync(olderKeyFile())) renameSync(olderKeyFile(), keyFile());
  if (existsSync(keyFile())) {
    const key = readFileSync(keyFile());
    if (key.length === KEY_BYTES) return key;
  }
  return make ? makeKey() : null;
}

/** AES-256-GCM; the id is authenticated too, so a row does not open under another id. Initialisation vector, tag, ciphertext. */
function encrypted(id: SecretId, value: string): Uint8Array {
  const iv = randomBytes(IV_BYTES);
  const cipher = createCipheriv('aes-256-gcm', secretKey(true)!, iv).setAAD(Buffer.from(id));
  const text = Buffer.concat([cipher.update(value, 'utf8'), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), text]);
}

function decrypted(id: SecretId, bytes: Uint8Array): string | null {
  const key = secretKey(false);
  if (!key) return null;
  const all = Buffer.from(bytes);
  // Rows from before migration 0025 have the directory alone as their id.
  for (const name of [id, id.slice(id.indexOf('/') + 1)]) {
    try {
      const decipher = createDecipheriv('aes-256-gcm', key, all.subarray(0, IV_BYTES))
        .setAAD(Buffer.from(name))
        .setAuthTag(all.subarray(IV_BYTES, IV_BYTES + TAG_BYTES));
      return Buffer.concat([
        decipher.update(all.subarray(IV_BYTES + TAG_BYTES)),
        decipher.final(),
      ]).toString();
    } catch {
      // Encrypted under the other id or with another key, or damaged.
    }
  }
  return null;
}

/** A secret; null if there is none, or if this key does not decrypt it. The user then enters it again. */
export async function readSecret(id: SecretId): Promise<string | null> {
  const database = await reading();
  const [row] = await database.select().from(secrets).where(eq(secrets.id, id));
  return row ? decrypted(id, row.encrypted) : null;
}

/** Saves a secret; null deletes it. */
export async function saveSecret(id: SecretId, value: string | null): Promise<void> {
  const database = await writing();
  if (value === null) {
    await database.delete(secrets).where(eq(secrets.id, id));
    return;
  }
  const bytes = encrypted(id, value);
  await database
    .insert(secrets)
    .values({ id, encrypted: bytes })
    .onConflictDoUpdate({ target: secrets.id, set: { encrypted: bytes, at: new Date() } });
}

/** A request without its secrets, for a digest that is saved: with the digest of a short passphrase, passphrases can be tried until one fits. */
export function withoutSecrets(body: unknown, names: readonly string[]): unknown {
  if (names.length === 0 || typeof body !== 'object' || body === null) return body;
  return Object.fromEntries(
    Object.entries(body).map(([name, value]) => [
      name,
      names.includes(name) && value !== null ? true : value,
    ]),
  );
}
