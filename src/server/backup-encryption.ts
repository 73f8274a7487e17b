import { createCipheriv, createDecipheriv } from 'node:crypto';
import { Transform, type TransformCallback } from 'node:stream';
import { keyOf } from './backup-seal';

/**
 * Encrypted backups. The first line says what the file is, with a salt of its own; behind it are frames of AES-256-GCM (NIST SP 800-38D). The key is derived from passphrase and
 * salt by scrypt. A frame is four bytes with its length, the text, and a tag of 16 bytes. Its number is in the nonce, and the first line and whether it is the last are in what is
 * authenticated: a frame that is altered, moved, repeated or missing is noticed, and so is a file that was cut off. docs/backup.md has the file.
 */

/** Plain bytes of a frame; the last one may have fewer, and none. */
const FRAME = 65_536;
const TAG = 16;
/** The bit of the length that marks the last frame. */
const LAST = 2 ** 31;

/** The first line of an encrypted backup. */
export const firstLine = (salt: string): string =>
  `${JSON.stringify({ veridon: 'encrypted backup', format: 1, salt })}\n`;

const FIRST_LINE = /^\{"veridon":"encrypted backup","format":1,"salt":"([0-9a-f]{32})"\}\n/;

/** The salt that a file names in its first line; undefined where it is no encrypted backup. `start` is its first 200 bytes, or all of them. */
export const saltIn = (start: Uint8Array): string | undefined =>
  FIRST_LINE.exec(Buffer.from(start).toString('latin1'))?.[1];

function nonceOf(number: number): Buffer {
  const nonce = Buffer.alloc(12);
  nonce.writeBigUInt64BE(BigInt(number), 4);
  return nonce;
}

const authenticated = (salt: string, isLast: boolean) => Buffer.from(`${firstLine(salt)}${isLast ? 1 : 0}`);

/** Encrypts what goes through it. */
export async function encrypting(passphrase: string, salt: string): Promise<Transform> {
  const key = await keyOf(passphrase, salt);
  let number = 0;
  let waiting: Buffer[] = [];
  let length = 0;
  const frame = (plain: Buffer, isLast: boolean): Buffer => {
    const cipher = createCipheriv('aes-256-gcm', key, nonceOf(number++));
    cipher.setAAD(authenticated(salt, isLast));
    const text = Buffer.concat([cipher.update(plain), cipher.final()]);
    const head = Buffer.alloc(4);
    head.writeUInt32BE(text.length + (isLast ? LAST : 0));
    return Buffer.concat([head, text, cipher.getAuthTag()]);
  };
  const made = new Transform({
    transform(chunk: Buffer, _, done: TransformCallback) {
      waiting.push(chunk);
      length += chunk.length;
      if (length <= FRAME) return done();
      let all = Buffer.concat(waiting);
      // Of what fills a frame exactly it is not known yet whether it is the last.
      for (; all.length > FRAME; all = all.subarray(FRAME)) made.push(frame(all.subarray(0, FRAME), false));
      [waiting, length] = [[all], all.length];
      done();
    },
    flush(done: TransformCallback) {
      made.push(frame(Buffer.concat(waiting), true));
      done();
    },
  });
  made.push(firstLine(salt));
  return made;
}

/** What is thrown where a frame cannot be decrypted, or the file does not end with the last one. */
export class NotDecrypted extends Error {}

/** The bytes of an encrypted backup, decrypted; each is given only after its frame was authenticated. Throws `NotDecrypted`. */
export async function* decrypted(
  bytes: AsyncIterable<Buffer>,
  passphrase: string,
  salt: string,
): AsyncGenerator<Buffer> {
  const key = await keyOf(passphrase, salt);
  let number = 0;
  let waiting = Buffer.alloc(0);
  let toSkip = firstLine(salt).length;
  let ended = false;
  for await (const chunk of bytes) {
    waiting = Buffer.concat([waiting, chunk]);
    if (toSkip > 0) {
      if (waiting.length < toSkip) continue;
      waiting = waiting.subarray(toSkip);
      toSkip = 0;
    }
    while (waiting.length >= 4) {
      const head = waiting.readUInt32BE(0);
      const [isLast, length] = [head >= LAST, head % LAST];
      if (ended || length > FRAME) throw new NotDecrypted('The frames are not those of a backup.');
      if (waiting.length < 4 + length + TAG) break;
      const decipher = createDecipheriv('aes-256-gcm', key, nonceOf(number++), { authTagLength: TAG });
      decipher.setAAD(authenticated(salt, isLast));
      decipher.setAuthTag(waiting.subarray(4 + length, 4 + length + TAG));
      let plain: Buffer;
      try {
        plain = Buffer.concat([decipher.update(waiting.subarray(4, 4 + length)), decipher.final()]);
      } catch {
        throw new NotDecrypted('A frame is not what it was.');
      }
      waiting = waiting.subarray(4 + length + TAG);
      ended = isLast;
      yield plain;
    }
  }
  if (!ended || waiting.length > 0) throw new NotDecrypted('The file does not end where it should.');
}
