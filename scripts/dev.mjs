// npm run dev: bench and application for working on Veridon, with reloading.
import { spawn } from 'node:child_process';
import { buildReader, installPackages } from './prepare.mjs';

installPackages();
// What reads files is of the sources as they are now; start again after a change of src/reader or of what it uses.
buildReader();
const port = process.env.VERIDON_PORT ?? '4330';
const benchPort = process.env.VERIDON_BENCH_PORT ?? '4331';
const env = {
  ...process.env,
  VERIDON_DEMO: '1',
  VERIDON_DATA_DIR: process.env.VERIDON_DATA_DIR ?? '.data/dev',
  VERIDON_BENCH_PORT: benchPort,
  VERIDON_BENCH_DIR: '.data/dev-bench',
  VERIDON_BENCH_SPEED: process.env.VERIDON_BENCH_SPEED ?? '4',
  VERIDON_BENCH_URL: `http://127.0.0.1:${benchPort}`,
};
const children = [
  spawn(process.execPath, ['--import', 'tsx', 'src/sim/main.ts'], { env, stdio: 'inherit' }),
  spawn(process.execPath, ['node_modules/next/dist/bin/next', 'dev', '-H', '127.0.0.1', '-p', port], {
    env,
    stdio: 'inherit',
  }),
];
const stop = () => children.forEach((child) => child.kill('SIGTERM'));
for (const child of children) child.on('exit', stop);
process.on('SIGINT', stop);
process.on('SIGTERM', stop);
