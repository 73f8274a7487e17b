// npm run demo: installs what is missing, builds, and starts bench and application with the demo's data.
import { spawn } from 'node:child_process';
import { resolve } from 'node:path';
import { isFree } from './ports.mjs';
import { BENCH, build, installPackages } from './prepare.mjs';

const port = Number(process.env.VERIDON_PORT ?? 4320);
const benchPort = Number(process.env.VERIDON_BENCH_PORT ?? 4321);
const folder = resolve(process.env.VERIDON_DATA_DIR ?? '.data/demo');

for (const [name, wanted] of [
  ['VERIDON_PORT', port],
  ['VERIDON_BENCH_PORT', benchPort],
]) {
  if (!Number.isInteger(wanted) || wanted < 1 || wanted > 65535) {
    console.error(`${name} is not a port number from 1 to 65535.`);
    process.exit(1);
  }
  if (!(await isFree(wanted))) {
    console.error(
      `Port ${wanted} of 127.0.0.1 is taken by another program. Stop that one, or choose another port: ${name}=${wanted + 10} npm run demo`,
    );
    process.exit(1);
  }
}

installPackages();
await build();

const env = {
  ...process.env,
  VERIDON_DEMO: '1',
  VERIDON_DATA_DIR: folder,
  VERIDON_BENCH_PORT: String(benchPort),
  VERIDON_BENCH_DIR: process.env.VERIDON_BENCH_DIR ?? resolve(folder, 'bench'),
  VERIDON_BENCH_SPEED: process.env.VERIDON_BENCH_SPEED ?? '4',
  VERIDON_BENCH_PLUGGED: process.env.VERIDON_BENCH_PLUGGED ?? 'tern-1',
  VERIDON_BENCH_URL: `http://127.0.0.1:${benchPort}`,
  NEXT_TELEMETRY_DISABLED: '1',
};
const children = [
  spawn(process.execPath, [BENCH], { env, stdio: 'inherit' }),
  // What is young is thrown away early: with rooms of 16 MB the server takes 60 MB more and is no quicker.
  spawn(
    process.execPath,
    ['--min-semi-space-size=4', '--max-semi-space-size=4', 'src/door/server.mjs', String(port)],
    {
      env: { ...env, NODE_ENV: 'production' },
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    },
  ),
];
let stopping = false;
const stop = (code) => {
  if (stopping) return;
  stopping = true;
  for (const child of children) child.kill('SIGTERM');
  const gone = () => children.every((child) => child.exitCode !== null || child.signalCode !== null);
  const began = Date.now();
  setInterval(() => {
    if (Date.now() - began > 3000) for (const child of children) child.kill('SIGKILL');
    if (gone()) process.exit(code);
  }, 50);
};
for (const child of children) child.on('exit', (code) => stop(code ?? 1));
process.on('SIGINT', () => stop(0));
process.on('SIGTERM', () => stop(0));

const address = `http://127.0.0.1:${port}`;
const late = setTimeout(() => {
  console.error('Veridon did not come up within 90 seconds.');
  stop(1);
}, 90_000);
// The server says itself that it answers: whoever asks again and again takes from it what it starts with.
children[1].once('message', () => {
  clearTimeout(late);
  console.log(`\nVeridon is ready: ${address}\nData: ${folder}. Stop with Ctrl C.\n`);
});
