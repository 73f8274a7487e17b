// npm run attack [-- --minutes 30 --seed 1]: everything that is done to Veridon to spoil what it keeps, for so long.
import { spawnSync } from 'node:child_process';
import { build, installPackages, wantChromium } from './prepare.mjs';

installPackages();
// Keys are struck in a browser.
const chromium = wantChromium();
await build();
const { status } = spawnSync(
  process.execPath,
  ['--import', 'tsx', 'attack/main.mts', ...process.argv.slice(2)],
  {
    stdio: 'inherit',
    env: { ...process.env, VERIDON_CHROMIUM: chromium },
  },
);
process.exit(status ?? 1);
