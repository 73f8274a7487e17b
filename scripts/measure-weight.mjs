// Part of npm run measure: what the plan page weighs.
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, symlinkSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { gzipSync } from 'node:zlib';
import { fullPlan } from './measure-page.mjs';
import { freePort } from './ports.mjs';

const pause = (ms) => new Promise((done) => setTimeout(done, ms));

// JavaScript that the plan page loads, compressed, beside an empty page of the same build. What it names
// and what its worker loads are counted apart.
async function weight(browser, address) {
  const page = await browser.newPage();
  await page.setCacheEnabled(false);
  const sizes = new Map();
  const reading = [];
  page.on('response', (response) => {
    const url = response.url();
    if (!/\.js(\?|$)/.test(url)) return;
    reading.push(response.buffer().then((body) => sizes.set(url, gzipSync(body, { level: 9 }).length)));
  });
  const html = await (await page.goto(address)).text();
  // Until no more scripts are asked for (the page's own event stream goes on): what the worker beside it loads counts too, but for itself.
  for (let known = -1; known < reading.length;) {
    known = reading.length;
    await pause(1500);
  }
  for (let read = 0; read < reading.length; read++) await reading[read];
  await page.close();
  const sum = (of) => of.reduce((bytes, [, one]) => bytes + one, 0) / 1000;
  const own = [...sizes].filter(([url]) => html.includes(new URL(url).pathname));
  return { bytes: sum(own), beside: sum([...sizes].filter((one) => !own.includes(one))) };
}

/** Holds the plan page against an empty page of the same build. */
export async function measureWeight({ world, browser, folder, report }) {
  const plan = await weight(browser, `${world.url}/plans/${await fullPlan(world)}`);
  // The empty page is built from the same application with everything but the frame of Next taken away.
  const empty = join(folder, 'empty');
  mkdirSync(join(empty, 'src', 'app'), { recursive: true });
  writeFileSync(
    join(empty, 'src/app/layout.tsx'),
    'export default function Layout({ children }: { children: React.ReactNode }) { return <html><body>{children}</body></html>; }\n',
  );
  writeFileSync(join(empty, 'src/app/page.tsx'), 'export default function Page() { return <p>Empty</p>; }\n');
  writeFileSync(join(empty, 'package.json'), readFileSync('package.json'));
  writeFileSync(
    join(empty, 'next.config.mjs'),
    `export default { typescript: { ignoreBuildErrors: true }, turbopack: { root: ${JSON.stringify('/')} } };\n`,
  );
  symlinkSync(resolve('node_modules'), join(empty, 'node_modules'));
  const next = resolve('node_modules/next/dist/bin/next');
  const built = spawnSync(process.execPath, [next, 'build'], {
    cwd: empty,
    encoding: 'utf8',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1' },
  });
  if (built.status === 0) {
    const port = await freePort();
    const server = spawn(process.execPath, [next, 'start', '-H', '127.0.0.1', '-p', String(port)], {
      cwd: empty,
      stdio: 'ignore',
    });
    for (let i = 0; i < 100 && !(await fetch(`http://127.0.0.1:${port}`).catch(() => null)); i++)
      await pause(100);
    const bare = await weight(browser, `http://127.0.0.1:${port}`);
    server.kill('SIGKILL');
    report(
      'JavaScript of the plan page, compressed',
      [plan.bytes],
      'kB',
      `an empty page of the same build: ${bare.bytes.toFixed(1)} kB; ${(plan.bytes / bare.bytes).toFixed(2)} times; what is fetched after it, its worker among it, ${plan.beside.toFixed(1)} kB more`,
    );
  } else {
    report(
      'JavaScript of the plan page, compressed',
      [plan.bytes],
      'kB',
      'the empty page could not be built',
    );
    console.error(built.stdout?.slice(-800), built.stderr?.slice(-800));
  }
}
