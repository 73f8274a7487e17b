import { createHash, createHmac, randomBytes, scryptSync } from 'node:crypto';
import { execFile } from 'node:child_process';
import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { gunzipSync, gzipSync } from 'node:zlib';
import { sql } from 'drizzle-orm';
import { placing, renaming } from '../core/samples.test.kit';
import { ternP2 } from '../core/models/tern-p2';
import { openDatabase, secrets, stations } from '../db';
import { newMemory, UNITS } from '../sim/bench/units';
import { backUpDaily, KEPT_DEEP, listBackups, makeBackup, backupFile } from './backup';
import { sealCopy } from './copies';
import { dataFolder } from './data-folder.test.kit';
import { lookAtKeeping, readBackup } from './keeping';
import { createPlan, setRemoved } from './plans';
import { seeRadio } from './radios';
import { checkBackup, restoreBackup } from './restore';
import { editPlan } from './revisions';
import { setMark } from './marks';
import { IDENT } from '../core/samples.test.kit';

/** Everything as one file, and back into an empty directory. */

const folder = mkdtempSync(join(tmpdir(), 'veridon-restored-'));
dataFolder('backup', { after: () => rmSync(folder, { recursive: true, force: true }) });
const owner = { callSign: 'Q7ABC', region: 'orrin' as const, grade: 'full' as const, strict: false };

/** Every row of every table that goes along, as text, whatever the order. */
async function everything(): Promise<Record<string, string[]>> {
  const { database } = await openDatabase();
  const rows = async (query: string) =>
    ((await database.execute(sql.raw(query))) as unknown as { rows: Record<string, string>[] }).rows;
  const tables = await rows(
    `select table_name as t from information_schema.tables where table_schema = 'public' and table_name not in ('secrets', 'changes', 'instances')`,
  );
  const all: Record<string, string[]> = {};
  for (const { t } of tables)
    all[t!] = (await rows(`select to_jsonb(x)::text as row from ${t} x order by 1`)).map(({ row }) => row!);
  return all;
}

let file: string;
let before: Record<string, string[]>;

test('a backup has every row but passwords, and is whole', async () => {
  const { plan } = await createPlan({ name: 'Kept', modelId: 'tern-p2', owner });
  await editPlan(plan.id, 1, placing(0, 1, 2));
  await editPlan(plan.id, 2, renaming(1, 'With “quotes”, a \\, ütf and \u2028'));
  await setMark(plan.id, 2, 'before the regatta');
  const gone = await createPlan({ name: 'Put away', modelId: 'tern-p2', owner });
  await setRemoved(gone.plan.id, true);
  const radio = await seeRadio(IDENT, ternP2);
  await sealCopy(radio, ternP2, newMemory(UNITS[0]!), 'read');
  const { database } = await openDatabase();
  const entry = { ref: 'x' } as never;
  await database.insert(stations).values(
    Array.from({ length: 1234 }, (_, n) => ({
      ...{ source: 'file', ref: `R${n}`, lat: 52, lon: -30, entry, askedAt: new Date(1_700_000_000_000 + n) },
    })),
  );
  await database.insert(secrets).values({ id: 'directory/isles-ledger', encrypted: 'very secret' } as never);
  before = await everything();
  const kept = await makeBackup('request');
  file = (await backupFile(kept.name))!;
  const text = gunzipSync(readFileSync(file)).toString();
  expect(text).not.toMatch(/"secrets"|very secret|76657279/);
  expect(await checkBackup(file)).toMatchObject({
    ok: true,
    value: { plans: 2, counts: { documents: 2, stations: 1234, copies: 1, marks: 1 } },
  });
  expect(Buffer.from(await readBackup(kept.name)).equals(readFileSync(file))).toBe(true);
  expect(await lookAtKeeping()).toMatchObject({
    kind: 'pglite',
    damaged: [],
    backups: [{ name: kept.name, by: 'request' }],
    holds: expect.arrayContaining([
      { what: 'plans', count: 1 },
      { what: 'plans put away', count: 1 },
      { what: 'sealed copies', count: 1 },
      { what: 'stations of directories', count: 1234 },
    ]) as unknown,
  });
});

test('a sealed copy that is not what was sealed is named', async () => {
  const { database } = await openDatabase();
  const spoil = (by: number) =>
    database.execute(
      sql.raw(`alter table copies disable trigger user;
      update copies set image = set_byte(image, 5, (get_byte(image, 5) + ${by}) % 256);
      alter table copies enable trigger user`),
    );
  await spoil(1);
  expect((await lookAtKeeping()).damaged).toHaveLength(1);
  await spoil(255);
  expect((await lookAtKeeping()).damaged).toEqual([]);
});

test('damaged in any way it is refused with a clear word, and nothing is touched', async () => {
  const bytes = readFileSync(file);
  const text = gunzipSync(bytes).toString();
  const lines = text.trimEnd().split('\n');
  const bad = join(folder, 'bad.gz');
  for (const [made, words] of [
    [bytes.subarray(0, bytes.length >> 1), 'not whole'],
    [Buffer.from('hello'), 'damaged or not whole'],
    [gzipSync('{"some":"json"}\n'), 'no backup of Veridon'],
    [gzipSync(lines.slice(0, -1).join('\n')), 'its end is missing'],
    [gzipSync(lines.toSpliced(5, 1).join('\n')), 'does not add up'],
    [gzipSync(text.replace('before the regatta', 'before the regattA')), 'does not add up'],
    [gzipSync(text.replace(/"schema":\d+/, '"schema":9999')), 'a newer Veridon'],
    [gzipSync(`${text}{"row":{}}\n`), 'behind its end'],
  ] as const) {
    writeFileSync(bad, made);
    expect(await restoreBackup(bad)).toEqual({ ok: false, reason: expect.stringContaining(words) as string });
  }
  expect(await restoreBackup(file)).toEqual({
    ok: false,
    reason: expect.stringContaining('plans or radios here already') as string,
  });
  expect(await everything()).toEqual(before);
});

test('what is wrong behind the place where a file was given up harms nobody', async () => {
  const bad = join(folder, 'bad-behind.gz');
  const behind = gzipSync(randomBytes(500_000).toString('hex'));
  // After it a part that is packed in no way that there is.
  writeFileSync(bad, Buffer.concat([gzipSync('{"some":"json"}\n'), behind, Buffer.from([0x1f, 0x8b, 0, 0])]));
  const uncaught: unknown[] = [];
  const hear = (error: unknown) => uncaught.push(error);
  process.on('uncaughtException', hear);
  try {
    for (let n = 0; n < 20; n++)
      expect(await checkBackup(bad)).toEqual({
        ok: false,
        reason: expect.stringContaining('no backup of Veridon') as string,
      });
    expect(await checkBackup(join(folder, 'no-such-file'))).toMatchObject({ ok: false });
    expect(await checkBackup(file)).toMatchObject({ ok: true });
  } finally {
    process.off('uncaughtException', hear);
  }
  expect(uncaught).toEqual([]);
});

/** A backup with other lines, which adds up all the same: whoever changes it makes its sum right. */
function withLines(change: (lines: string[]) => string[], code?: string): string {
  const lines = change(gunzipSync(readFileSync(file)).toString().trimEnd().split('\n').slice(0, -1));
  const end: Record<string, number> = {};
  let table = '';
  for (const line of lines.slice(1)) {
    const json = JSON.parse(line) as { table?: string };
    if (json.table !== undefined) end[(table = json.table)] = 0;
    else end[table]!++;
  }
  const text = lines.map((line) => `${line}\n`).join('');
  const sha256 = createHash('sha256').update(text).digest('hex');
  const made = join(folder, `made-${randomBytes(4).toString('hex')}.gz`);
  writeFileSync(made, gzipSync(`${text}${JSON.stringify({ end, sha256, code })}\n`));
  return made;
}
const inPlans = (change: (row: Record<string, unknown>) => void) => (lines: string[]) => {
  const at = lines.findIndex((line) => line.includes('"table":"documents"')) + 1;
  const { row } = JSON.parse(lines[at]!) as { row: Record<string, unknown> };
  change(row);
  return lines.with(at, JSON.stringify({ row }));
};

test('what adds up and is not Veridon’s is refused all the same', async () => {
  for (const [made, words] of [
    [withLines((lines) => lines), null],
    [
      withLines((lines) => [...lines, '{"table":"pg_authid","columns":["rolname"]}']),
      'the table “pg_authid”',
    ],
    [withLines((lines) => [...lines, '{"table":"secrets","columns":["id"]}']), 'the table “secrets”'],
    [withLines((lines) => [...lines, '{"table":"marks","columns":["name"]}']), 'the table “marks” twice'],
    // Under the name that it had before, and under today's.
    [
      withLines(([first, ...lines]) => [
        first!.replace(/"schema":\d+/, '"schema":24'),
        ...lines.map((line) => line.replace('"table":"documents"', '"table":"plans"')),
        '{"table":"documents","columns":["id"]}',
      ]),
      'the table “documents” twice',
    ],
    [
      withLines((lines) => lines.map((line) => line.replace('"columns":["id"', '"columns":["id","oid"'))),
      'the column “oid”',
    ],
    [withLines(inPlans((row) => (row.revision = -5))), '(revision: '],
    [withLines(inPlans((row) => (row.revision = 'three'))), '(revision: '],
    [withLines(inPlans((row) => (row.updated_at = 'yesterday'))), '(updated_at: is no moment'],
    [withLines(inPlans((row) => (row.name = 'a\0b'))), '(name: has a character that is none'],
    [withLines(inPlans((row) => (row.owner = 'x'))), 'is not valid'],
  ] as const) {
    const checked = await checkBackup(made);
    expect(checked.ok ? null : checked.reason).toEqual(
      words === null ? null : expect.stringContaining(words),
    );
  }
  const long = join(folder, 'long.gz');
  writeFileSync(long, gzipSync(Buffer.alloc(120_000_000, 'x')));
  expect(await checkBackup(long)).toEqual({
    ok: false,
    reason: 'A line of the file is longer than 50 MB. Veridon writes no such lines. Nothing was restored.',
  });
});

test('with its passphrase it can be told that nobody has changed it; without it is unverified', async () => {
  const kept = await makeBackup('request', { passphrase: 'of the old harbour' });
  const sealed = (await backupFile(kept.name))!;
  expect(await checkBackup(sealed, 'of the old harbour')).toMatchObject({
    ok: true,
    value: { verified: true },
  });
  expect(await checkBackup(sealed)).toMatchObject({ ok: true, value: { verified: false } });
  const reason = async (of: string, passphrase: string) => {
    const checked = await checkBackup(of, passphrase);
    return checked.ok ? 'verified' : checked.reason;
  };
  expect(await reason(sealed, 'of the new harbour')).toMatch(/passphrase is wrong/);
  expect(await reason(file, 'of the old harbour')).toMatch(/has no passphrase/);
  // The code is that of RFC 2104 over the lines, with a key by scrypt, worked out here by Node alone.
  const lines = gunzipSync(readFileSync(sealed)).toString().trimEnd().split('\n');
  const { salt } = JSON.parse(lines[0]!) as { salt: string };
  const { code } = JSON.parse(lines.at(-1)!) as { code: string };
  const key = scryptSync('of the old harbour', Buffer.from(salt, 'hex'), 32, {
    N: 32_768,
    r: 8,
    p: 1,
    maxmem: 2 ** 26,
  });
  const body = lines
    .slice(0, -1)
    .map((line) => `${line}\n`)
    .join('');
  expect(code).toBe(createHmac('sha256', key).update(body).digest('hex'));
  // Changed by somebody who makes its sum right, and keeps the code.
  const before = file;
  file = sealed;
  const changed = withLines(
    inPlans((row) => (row.name = 'Another name')),
    code,
  );
  file = before;
  expect(await checkBackup(changed)).toMatchObject({ ok: true, value: { verified: false } });
  expect(await reason(changed, 'of the old harbour')).toMatch(/passphrase is wrong/);
});

test('many at once are made one after the other, each under a name of its own', async () => {
  const made = await Promise.all(Array.from({ length: 4 }, () => makeBackup('request')));
  expect(new Set(made.map(({ name }) => name)).size).toBe(4);
  for (const { name } of made)
    expect(await checkBackup((await backupFile(name))!)).toMatchObject({ ok: true });
});

test('a plan that cannot be read is restored, and named', async () => {
  const spoilt = withLines(inPlans((row) => Object.assign(row, { head: null, document: { x: 1 } })));
  const { stdout, stderr } = await promisify(execFile)(
    process.execPath,
    ['--import', 'tsx', 'scripts/keeping.ts', 'restore', spoilt],
    { env: { ...process.env, NODE_OPTIONS: '', VERIDON_DATA_DIR: join(folder, 'spoilt') } },
  );
  expect(stdout).toContain('2 plans');
  expect(stdout).toContain('This backup is unverified');
  expect(stderr).toMatch(/“(Kept|Put away)” cannot be read/);
});

test('restored by its command into an empty directory, every row is there again', async () => {
  const empty = join(folder, 'data');
  const { stdout } = await promisify(execFile)(
    process.execPath,
    ['--import', 'tsx', 'scripts/keeping.ts', 'restore', file],
    { env: { ...process.env, NODE_OPTIONS: '', VERIDON_DATA_DIR: empty } },
  );
  expect(stdout).toContain('2 plans and 1 sealed copies');
  // Backed up from there, it is the same backup but for its moment.
  const second = join(folder, 'second.gz');
  await promisify(execFile)(process.execPath, ['--import', 'tsx', 'scripts/keeping.ts', 'backup', second], {
    env: { ...process.env, NODE_OPTIONS: '', VERIDON_DATA_DIR: empty },
  });
  const rowsIn = (of: string) =>
    gunzipSync(readFileSync(of)).toString().trimEnd().split('\n').slice(1, -1).sort();
  expect(rowsIn(second)).toEqual(rowsIn(file));
  expect(rowsIn(second).length).toBeGreaterThan(1240);
});

test('one a day is made by itself, and seven of each kind are kept', async () => {
  const [asked] = await listBackups();
  const daily = await backUpDaily();
  expect(daily).toMatchObject({ by: 'itself' });
  expect(await backUpDaily()).toBeNull();
  expect(await backUpDaily(Date.parse(daily!.at) + 24 * 3600_000)).toMatchObject({ by: 'itself' });
  const place = join(process.env.VERIDON_DATA_DIR!, 'backups');
  for (let day = 1; day <= 9; day++)
    copyFileSync(file, join(place, `veridon-2026-01-0${day}T12-00-00-daily.backup.gz`));
  await makeBackup('itself');
  const kept = await listBackups();
  expect(kept.filter(({ by }) => by === 'itself')).toHaveLength(KEPT_DEEP);
  expect(kept.map(({ name }) => name)).toContain(asked!.name);
  expect(kept.map(({ name }) => name)).not.toContain('veridon-2026-01-01T12-00-00-daily.backup.gz');
  expect(readdirSync(place).filter((name) => name.endsWith('.making'))).toEqual([]);
  expect(existsSync(join(place, asked!.name))).toBe(true);
  expect(await backupFile('../db')).toBeUndefined();
});
