import { createCipheriv } from 'node:crypto';
import { existsSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { openDatabase, secrets } from '../db';
import { dataFolder } from './data-folder.test.kit';
import { readSecret, saveSecret, withoutSecrets } from './secrets';

/** Secrets are read again by the key that encrypted them, under their own id, and by nothing else. */

const folder = dataFolder('secrets');
afterEach(() => delete process.env.VERIDON_SECRET_KEY);

const keyFile = () => join(folder, 'secrets.key');
const row = async (id: string) => {
  const { database } = await openDatabase();
  return (await database.select().from(secrets)).find((one) => one.id === id);
};

test('a secret is saved encrypted, replaced and deleted; its key is for this account of the system alone', async () => {
  expect(await readSecret('directory/one')).toBeNull();
  expect(existsSync(keyFile())).toBe(false);
  await saveSecret('directory/one', 'harbour lights');
  expect(await readSecret('directory/one')).toBe('harbour lights');
  expect(statSync(keyFile()).mode & 0o777).toBe(0o600);
  expect(readFileSync(keyFile())).toHaveLength(32);
  expect(Buffer.from((await row('directory/one'))!.encrypted).toString('latin1')).not.toContain('harbour');
  // 12 bytes of the vector, 16 of the tag, and as many as the text has.
  expect((await row('directory/one'))!.encrypted).toHaveLength(12 + 16 + 14);
  await saveSecret('directory/one', 'other words');
  expect(await readSecret('directory/one')).toBe('other words');
  await saveSecret('directory/one', null);
  expect([await readSecret('directory/one'), await row('directory/one')]).toEqual([null, undefined]);
});

test('a row does not open under another id, altered, or with another key', async () => {
  await saveSecret('directory/one', 'harbour lights');
  const { database } = await openDatabase();
  const bytes = new Uint8Array((await row('directory/one'))!.encrypted);
  await database.insert(secrets).values({ id: 'directory/two', encrypted: bytes });
  expect(await readSecret('directory/two')).toBeNull();
  for (const at of [0, 12, 28, bytes.length - 1]) {
    const altered = bytes.slice();
    altered[at]! ^= 1;
    await database.delete(secrets);
    await database.insert(secrets).values({ id: 'directory/one', encrypted: altered });
    expect({ at, secret: await readSecret('directory/one') }).toEqual({ at, secret: null });
  }
  await database.delete(secrets);
  await database.insert(secrets).values({ id: 'directory/one', encrypted: bytes });
  process.env.VERIDON_SECRET_KEY = Buffer.alloc(32, 7).toString('base64');
  expect(await readSecret('directory/one')).toBeNull();
  delete process.env.VERIDON_SECRET_KEY;
  expect(await readSecret('directory/one')).toBe('harbour lights');
});

test('the key of the environment serves in another data directory too, and one that is none is refused', async () => {
  process.env.VERIDON_SECRET_KEY = Buffer.alloc(32, 7).toString('base64');
  await saveSecret('directory/three', 'keeper');
  // As on another instance that has the same database and no file, or another one.
  writeFileSync(keyFile(), Buffer.alloc(32, 9));
  expect(await readSecret('directory/three')).toBe('keeper');
  for (const text of [
    'short',
    Buffer.alloc(31).toString('base64'),
    `${Buffer.alloc(32).toString('base64')}x`,
    'é'.repeat(44),
  ]) {
    process.env.VERIDON_SECRET_KEY = text;
    await expect(readSecret('directory/three')).rejects.toThrow(/44 characters/);
  }
});

test('what was encrypted before all secrets had one table is read, with its key under its older name', async () => {
  const key = Buffer.alloc(32, 3);
  const [vector, text] = [Buffer.alloc(12, 5), '{"name":"keeper","password":"harbour lights"}'];
  // Then the directory alone was authenticated: no id, and no kind before it.
  const cipher = createCipheriv('aes-256-gcm', key, vector).setAAD(Buffer.from('isles-ledger'));
  const ciphertext = Buffer.concat([cipher.update(text), cipher.final()]);
  const { database } = await openDatabase();
  await database.insert(secrets).values({
    id: 'directory/isles-ledger',
    encrypted: Buffer.concat([vector, cipher.getAuthTag(), ciphertext]),
  });
  renameSync(keyFile(), join(folder, 'elsewhere.key'));
  writeFileSync(join(folder, 'accounts.key'), key, { mode: 0o600 });
  expect(await readSecret('directory/isles-ledger')).toBe(text);
  expect([existsSync(join(folder, 'accounts.key')), readFileSync(keyFile())]).toEqual([false, key]);
});

test('a request has no secrets in what is compared', () => {
  expect(withoutSecrets({ passphrase: 'harbour', encrypt: true }, ['passphrase'])).toEqual({
    passphrase: true,
    encrypt: true,
  });
  expect(withoutSecrets({ name: null, password: null }, ['password'])).toEqual({
    name: null,
    password: null,
  });
  expect(withoutSecrets(undefined, ['password'])).toBeUndefined();
});
