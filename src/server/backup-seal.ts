import { createHmac, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';

/**
 * Authenticates backups. A checksum proves that a file is complete, not who made it. With a passphrase a backup also has a code (HMAC-SHA-256, RFC 2104); its key
 * is derived from passphrase and salt by scrypt (RFC 7914), so the code can be checked on any computer.
 */

const SALT_BYTES = 16;
const COST = { N: 32_768, r: 8, p: 1, maxmem: 64 * 2 ** 20 };

const derive = promisify(scrypt) as (
  passphrase: string,
  salt: Buffer,
  bytes: number,
  cost: typeof COST,
) => Promise<Buffer>;

/** The key of 32 bytes of a passphrase; `salt` is hexadecimal. */
export const keyOf = (passphrase: string, salt: string): Promise<Buffer> =>
  derive(passphrase.normalize('NFC'), Buffer.from(salt, 'hex'), 32, COST);

/** New salt, hexadecimal. */
export const newSalt = (): string => randomBytes(SALT_BYTES).toString('hex');

/** Computes the code of lines that are given one by one. */
export async function codeWith(passphrase: string, salt: string) {
  const key = await keyOf(passphrase, salt);
  const code = createHmac('sha256', key);
  return {
    update: (line: string): void => void code.update(line).update('\n'),
    hex: () => code.digest('hex'),
    /** True where that is the code, in a time that does not tell how far. */
    is(said: string): boolean {
      const [mine, other] = [code.digest(), Buffer.from(said, 'hex')];
      return mine.length === other.length && timingSafeEqual(mine, other);
    },
  };
}
