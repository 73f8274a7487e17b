import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { createRequire } from 'node:module';
import {
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join, resolve } from 'node:path';

const STAMPS = '.build';

function run(command, args, options = {}) {
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', ...options });
  return error ? 1 : (status ?? 1);
}

/** The same while this process goes on with other things. */
function runBeside(command, args, options) {
  return new Promise((resolve) => {
    const child = spawn(command, args, options);
    child.on('error', () => resolve(1));
    child.on('close', (status) => resolve(status ?? 1));
  });
}

function digest(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) add(join(path, name));
    else if (!/\.test\./.test(path)) hash.update(path).update(readFileSync(path));
  };
  for (const path of paths) add(path);
  return hash.digest('hex');
}

const stampOf = (name) => (existsSync(join(STAMPS, name)) ? readFileSync(join(STAMPS, name), 'utf8') : '');
function stamp(name, value) {
  mkdirSync(STAMPS, { recursive: true });
  writeFileSync(join(STAMPS, name), value);
}

/** Installs the packages of the lock file where they are missing or other ones. */
export function installPackages() {
  const [major] = process.versions.node.split('.').map(Number);
  if (major < 20) {
    console.error(`Veridon wants Node.js 20 or newer; this is ${process.versions.node}.`);
    process.exit(1);
  }
  const wanted = digest(['package-lock.json']);
  if (existsSync('node_modules/next/package.json') && stampOf('packages') === wanted) return;
  console.log('Installing packages…');
  // Not “npm ci”: a registry may lack packages of other platforms, which that refuses. The lock's versions hold here too.
  if (run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error']) !== 0) {
    console.error('The packages could not be installed. Is the package registry reachable?');
    process.exit(1);
  }
  stamp('packages', wanted);
}

const BUILT_FROM = [
  'src',
  'demo',
  'package-lock.json',
  'next.config.mjs',
  'postcss.config.mjs',
  'tsconfig.json',
];

/** Makes the production build where the sources have changed since the last one. */
export async function build() {
  prepareDatabase();
  const wanted = digest(BUILT_FROM);
  if (
    existsSync('.next/BUILD_ID') &&
    existsSync(BENCH) &&
    existsSync(BENCH_PAGE) &&
    existsSync(READER) &&
    stampOf('build') === wanted
  )
    return;
  console.log('Building…');
  // A build has no business with anybody's data: it is given a directory of its own, which must not be there afterwards.
  const noData = resolve(STAMPS, 'no-data');
  rmSync(noData, { recursive: true, force: true });
  const status = await runBeside('npx', ['next', 'build'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', VERIDON_DATA_DIR: noData, DATABASE_URL: '' },
  });
  if (status !== 0 || existsSync(noData)) {
    console.error(status !== 0 ? 'The build failed.' : 'The build opened a data directory; it must not.');
    process.exit(1);
  }
  buildBench();
  buildReader();
  await buildBenchPage();
  stamp('build', wanted);
}

/** The bench as one file, so that it is there at once: put together from its sources at each start it takes a second more. */
export const BENCH = '.build/bench.mjs';
function buildBench() {
  // Asked for here: it may have been installed a moment ago.
  const { buildSync } = createRequire(import.meta.url)('esbuild');
  const made = buildSync({
    entryPoints: ['src/sim/main.ts'],
    outfile: BENCH,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    logLevel: 'error',
  });
  if (made.errors.length > 0) process.exit(1);
}

/** What the server has done beside itself, each as one file with its packages: files are read by processes of their own, which start for every file. */
const READER = '.build/reader';
export function buildReader() {
  const { buildSync } = createRequire(import.meta.url)('esbuild');
  const making = `${READER}.${process.pid}`;
  buildSync({
    entryPoints: {
      main: 'src/reader/main.ts',
      watch: 'src/reader/watch.ts',
      'server-worker': 'src/workers/server-worker.ts',
    },
    outdir: making,
    bundle: true,
    minifySyntax: true,
    platform: 'node',
    format: 'cjs',
    target: 'node20',
    logLevel: 'error',
  });
  // A reader may be started at any moment: each file takes the place of the one before as a whole.
  mkdirSync(READER, { recursive: true });
  for (const name of readdirSync(making)) renameSync(join(making, name), join(READER, name));
  rmSync(making, { recursive: true, force: true });
}

/** The page of the bench: its script, its colours by Tailwind, its fonts. */
const BENCH_PAGE = '.build/bench-page';
async function buildBenchPage() {
  const require = createRequire(import.meta.url);
  const [{ default: postcss }, { default: tailwind }] = await Promise.all([
    import('postcss'),
    import('@tailwindcss/postcss'),
  ]);
  const from = 'src/bench-page/page.css';
  const { css } = await postcss([tailwind({ optimize: true })]).process(readFileSync(from, 'utf8'), { from });
  // As deep as where it was: its fonts are named from there.
  mkdirSync(join(STAMPS, 'sheet'), { recursive: true });
  const sheet = join(STAMPS, 'sheet', 'page.css');
  writeFileSync(sheet, css);
  rmSync(BENCH_PAGE, { recursive: true, force: true });
  require('esbuild').buildSync({
    entryPoints: { main: 'src/bench-page/main.tsx', page: sheet },
    outdir: BENCH_PAGE,
    bundle: true,
    minify: true,
    format: 'esm',
    jsx: 'automatic',
    assetNames: '[name]-[hash]',
    publicPath: '/page',
    loader: { '.woff2': 'file', '.woff': 'file' },
    define: { 'process.env.NODE_ENV': '"production"' },
    logLevel: 'error',
  });
}

/** Makes the empty database from which every new data directory is copied, once for each version of PGlite and of the schema; says where it is. */
export function prepareDatabase() {
  const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8'));
  const { entries } = JSON.parse(readFileSync('src/db/migrations/meta/_journal.json', 'utf8'));
  const place = join(STAMPS, `empty-database-${dependencies['@electric-sql/pglite']}-${entries.length}`);
  if (existsSync(place)) return resolve(place);
  const making = `${place}.making`;
  rmSync(making, { recursive: true, force: true });
  mkdirSync(STAMPS, { recursive: true });
  if (run(process.execPath, ['src/db/make-database.mjs', making]) === 0) renameSync(making, place);
  return resolve(place);
}

/**
 * Where Debian and others put Chromium. The one without windows, which Debian makes of the same source, comes first: a tenth of the time of a
 * journey goes into windows that nobody sees.
 */
export const CHROMIUM = [
  '/usr/bin/chromium-headless-shell',
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome-stable',
];

/** Finds Chromium, or installs it from Debian's packages where that is allowed; ends the process with a clear word where not. */
export function wantChromium() {
  const found = () => [process.env.VERIDON_CHROMIUM, ...CHROMIUM].find((path) => path && existsSync(path));
  if (found()) return found();
  console.log('Chromium is missing; installing it from Debian’s packages…');
  const root = process.getuid?.() === 0;
  const install = (name) =>
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', name], {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
    }) === 0;
  // Older releases have no package of the one without windows.
  if (root && run('apt-get', ['update', '-qq']) === 0 && !install('chromium-headless-shell'))
    install('chromium');
  if (found()) return found();
  console.error(
    root
      ? 'Chromium could not be installed from Debian’s packages. Install it, or name one with VERIDON_CHROMIUM.'
      : 'The browser journeys need Chromium, and this account may not install it. Run “apt-get install chromium” as root, or name one with VERIDON_CHROMIUM.',
  );
  process.exit(1);
}

const POSTGRES = '/usr/lib/postgresql';

/** The folder of the programs of the newest PostgreSQL that Debian installed; undefined where there is none. */
const postgresPrograms = () =>
  existsSync(POSTGRES)
    ? readdirSync(POSTGRES)
        .sort((a, b) => Number(b) - Number(a))
        .map((version) => join(POSTGRES, version, 'bin'))
        .find((folder) => existsSync(join(folder, 'initdb')))
    : undefined;

/**
 * Finds the programs of a PostgreSQL server, or installs them from Debian's packages where that is allowed; ends the process with a clear word where not.
 * No server is set up for the machine: tests start their own.
 */
export function wantPostgres() {
  const found = () => process.env.VERIDON_POSTGRES ?? postgresPrograms();
  if (found()) return found();
  console.log('PostgreSQL is missing; installing it from Debian’s packages…');
  const root = process.getuid?.() === 0;
  const install = (name) =>
    run(
      'apt-get',
      ['install', '-y', '-qq', '--no-install-recommends', '-o', 'Dpkg::Options::=--force-confold', name],
      {
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      },
    ) === 0;
  if (root && run('apt-get', ['update', '-qq']) === 0 && install('postgresql-common')) {
    writeFileSync('/etc/postgresql-common/createcluster.conf', 'create_main_cluster = false\n');
    install('postgresql');
  }
  if (found()) return found();
  console.error(
    root
      ? 'PostgreSQL could not be installed from Debian’s packages. Install it, or name the folder of its programs with VERIDON_POSTGRES.'
      : 'Some tests need PostgreSQL, and this account may not install it. Run “apt-get install postgresql” as root, or name the folder of its programs with VERIDON_POSTGRES.',
  );
  process.exit(1);
}
