import { spawn, spawnSync } from 'node:child_process';
import { chmodSync, chownSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort, until } from './world';

/** A PostgreSQL server of our own on a free port, with an empty database. */
export interface Postgres {
  url: string;
  close: () => Promise<void>;
}

/** The folder of its programs, which `npm test` installs where they are missing. */
function programs(): string {
  const named = process.env.VERIDON_POSTGRES;
  if (named) return named;
  const [newest] = readdirSync('/usr/lib/postgresql').sort((a, b) => Number(b) - Number(a));
  return `/usr/lib/postgresql/${newest}/bin`;
}

/** PostgreSQL does not run as root: as root everything is done as the user that its package made. */
const asItsUser = (command: string, args: string[]): [string, string[]] =>
  process.getuid?.() === 0 ? ['runuser', ['-u', 'postgres', '--', command, ...args]] : [command, args];

function idOf(kind: '-u' | '-g'): number {
  const { stdout } = spawnSync('id', [kind, 'postgres'], { encoding: 'utf8' });
  return Number(stdout.trim());
}

export async function startPostgres(): Promise<Postgres> {
  const folder = mkdtempSync(join(tmpdir(), 'veridon-postgres-'));
  if (process.getuid?.() === 0) {
    // The folders above were made for root alone.
    chmodSync(tmpdir(), 0o755);
    chownSync(folder, idOf('-u'), idOf('-g'));
  }
  const data = join(folder, 'data');
  const made = spawnSync(
    ...asItsUser(join(programs(), 'initdb'), [
      ...['-D', data, '-U', 'postgres', '-A', 'trust', '-E', 'UTF8', '--locale=C.UTF-8', '--no-sync'],
    ]),
    { encoding: 'utf8' },
  );
  if (!existsSync(join(data, 'PG_VERSION'))) throw new Error(`initdb made no database: ${made.stderr}`);
  const port = await freePort();
  const server = spawn(
    ...asItsUser(join(programs(), 'postgres'), [
      ...['-D', data, '-p', String(port), '-h', '127.0.0.1', '-k', folder, '-c', 'fsync=off'],
    ]),
    { stdio: 'ignore' },
  );
  const ready = () =>
    spawnSync(join(programs(), 'pg_isready'), ['-q', '-h', '127.0.0.1', '-p', String(port)]).status === 0;
  await until('the PostgreSQL server', async () => ready());
  return {
    url: `postgres://postgres@127.0.0.1:${port}/postgres`,
    close: async () => {
      const ended = new Promise((done) => server.once('exit', done));
      spawnSync(...asItsUser(join(programs(), 'pg_ctl'), ['-D', data, '-m', 'immediate', 'stop']));
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
