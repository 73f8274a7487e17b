import { createDecipheriv, randomBytes, scryptSync } from 'node:crypto';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { gunzipSync } from 'node:zlib';
import * as fc from '../core/property.test.kit';
import { openDatabase, snapshots } from '../db';
import { backupFile, makeBackup } from './backup';
import { decrypted, encrypting } from './backup-encryption';
import { newSalt } from './backup-seal';
import { dataFolder } from './data-folder.test.kit';
import { createPlan } from './plans';
import { checkBackup } from './restore';

const folder = dataFolder('encrypted');
const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };

describe('an encrypted backup', () => {
  const passphrase = 'of the old harbour';
  let encrypted: string;
  let bytes: Buffer;
  beforeAll(async () => {
    // What cannot be compressed, so that there are several frames.
    const { database } = await openDatabase();
    const { plan } = await createPlan({ name: 'Hidden', modelId: 'tern-p2', owner });
    const large = { documentId: plan.id, revision: 1_000_000, document: randomBytes(200_000) };
    await database.insert(snapshots).values(large);
    encrypted = (await backupFile((await makeBackup('request', { passphrase, encrypt: true })).name))!;
    bytes = readFileSync(encrypted);
  });
  const reasonOf = async (of: Buffer, by?: string) => {
    const path = join(folder, 'altered.encrypted');
    writeFileSync(path, of);
    const checked = await checkBackup(path, by);
    return checked.ok ? 'whole' : checked.reason;
  };
  /** Where each frame begins and ends, by the lengths that they say. */
  const frames = () => {
    const found: Buffer[] = [];
    for (let at = bytes.indexOf(0x0a) + 1; at < bytes.length;) {
      const end = at + 4 + (bytes.readUInt32BE(at) % 2 ** 31) + 16;
      found.push(bytes.subarray(at, end));
      at = end;
    }
    return found;
  };

  test('is a backup for those who have the passphrase, and has nothing to read for others', async () => {
    expect(encrypted).toMatch(/-asked\.backup\.encrypted$/);
    expect(await checkBackup(encrypted, passphrase)).toMatchObject({
      ok: true,
      value: { plans: 1, verified: true },
    });
    expect(await reasonOf(bytes)).toBe(
      'This backup is encrypted. Set VERIDON_PASSPHRASE to its passphrase. Nothing was restored.',
    );
    expect(await reasonOf(bytes, 'of the new harbour')).toMatch(/^The passphrase is wrong/);
    expect(bytes.subarray(bytes.indexOf(0x0a)).toString('latin1')).not.toMatch(/veridon/);
    // The beginning of a gzip file is hidden too.
    expect(bytes.subarray(bytes.indexOf(0x0a) + 5).subarray(0, 3)).not.toEqual(
      Buffer.from([0x1f, 0x8b, 0x08]),
    );
  });

  test('is what docs/backup.md says, worked out by Node alone', () => {
    const first = bytes.subarray(0, bytes.indexOf(0x0a) + 1);
    const { salt } = JSON.parse(first.toString()) as { salt: string };
    const key = scryptSync(passphrase, Buffer.from(salt, 'hex'), 32, {
      ...{ N: 32_768, r: 8, p: 1, maxmem: 2 ** 26 },
    });
    const all = frames();
    expect(all.length).toBeGreaterThan(1);
    const plain = all.map((frame, n) => {
      const isLast = n === all.length - 1;
      expect(frame[0]! >= 0x80).toBe(isLast);
      const nonce = Buffer.from(`00000000${n.toString(16).padStart(16, '0')}`, 'hex');
      const decipher = createDecipheriv('aes-256-gcm', key, nonce);
      decipher.setAAD(Buffer.concat([first, Buffer.from(isLast ? '1' : '0')]));
      decipher.setAuthTag(frame.subarray(-16));
      return Buffer.concat([decipher.update(frame.subarray(4, -16)), decipher.final()]);
    });
    expect(plain.slice(0, -1).every(({ length }) => length === 65_536)).toBe(true);
    expect(gunzipSync(Buffer.concat(plain)).toString()).toMatch(/^\{"veridon":"backup","format":1/);
  });

  test('a byte that was altered anywhere, a frame that was moved, repeated or left out, and an end that was cut off are noticed', async () => {
    const first = bytes.subarray(0, bytes.indexOf(0x0a) + 1);
    const [one, two, ...rest] = frames() as [Buffer, Buffer, ...Buffer[]];
    const refused =
      /^(The passphrase is wrong, or the backup was changed or cut off|This is no backup|The file is damaged)/;
    const altered: Buffer[] = [
      Buffer.concat([first, two, one, ...rest]),
      Buffer.concat([first, one, one, two, ...rest]),
      Buffer.concat([first, two, ...rest]),
      Buffer.concat([first, one]),
      Buffer.concat([bytes, one]),
      Buffer.concat([bytes, Buffer.from([0])]),
      first,
      bytes.subarray(0, bytes.length - 1),
      bytes.subarray(0, 100),
    ];
    const random = fc.sample(fc.tuple(fc.nat(bytes.length - 1), fc.nat(7)), { numRuns: 20, seed: fc.SEED });
    for (const [at, bit] of random) {
      const copy = Buffer.from(bytes);
      copy[at] = copy[at]! ^ (1 << bit);
      altered.push(copy);
    }
    for (const of of altered) expect(await reasonOf(of, passphrase)).toMatch(refused);
    expect(await reasonOf(bytes, passphrase)).toBe('whole');
  });

  test('texts of all lengths around that of a frame come through', async () => {
    for (const length of [0, 1, 65_535, 65_536, 65_537, 131_072, 200_000]) {
      const plain = Buffer.alloc(length, 'Ketterby ');
      const salt = newSalt();
      const made = await buffer(Readable.from([plain]).pipe(await encrypting('a', salt)));
      const parts: Buffer[] = [];
      // In pieces that end anywhere.
      const pieces: Buffer[] = [];
      for (let at = 0; at < made.length; at += 997) pieces.push(made.subarray(at, at + 997));
      for await (const part of decrypted(Readable.from(pieces), 'a', salt)) parts.push(part);
      expect(Buffer.concat(parts).equals(plain)).toBe(true);
    }
  });
});
