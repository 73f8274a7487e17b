// Part of npm run measure: a file of 50,000 rows dropped on a plan, and the map with 5,000 marks panned, in the browser.

/* global File, DataTransfer, DragEvent */

const quantile = (values, share) =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))];

/** 5,000 stations over the Isles, as a directory of one's own. */
const stations = () =>
  ['Name,Receive,Shift,Lat,Lon']
    .concat(
      Array.from(
        { length: 5000 },
        (_, n) =>
          `Mark ${n},${(144.4 + (n % 120) * 0.0125).toFixed(4)},-0.6,${(51 + ((n * 37) % 2200) / 1000).toFixed(4)},${(-32 + ((n * 91) % 4000) / 1000).toFixed(4)}`,
      ),
    )
    .join('\n');

export async function measureMap({ world, browser, report, planId }) {
  const page = await browser.newPage();
  await page.setViewport({ width: 1280, height: 800 });

  // Dropped until it says what came of it: fetched, read and checked in its worker.
  const whole = [];
  let shares = 0;
  for (let run = 0; run < 3; run++) {
    await page.goto(`${world.url}/plans/${planId}`);
    await page.waitForFunction(() => document.activeElement?.getAttribute('role') === 'grid');
    const { ms, seen } = await page.evaluate(async () => {
      const rows = Array.from(
        { length: 50_000 },
        (_, n) =>
          `Station ${n},${(144 + (n % 1600) * 0.0125).toFixed(4)},${n % 3 === 0 ? '-0.6' : '0'},88.5,FM,4 W,52.${n % 100},-30.1,north`,
      );
      const text = ['Name,Receive MHz,Shift,Tone,Mode,Power,Lat,Lon,Note', ...rows].join('\n');
      const data = new DataTransfer();
      data.items.add(new File([text], 'many.csv'));
      const said = new Set();
      const began = performance.now();
      document
        .querySelector('main')
        .dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
      for (;;) {
        await new Promise((drawn) => requestAnimationFrame(drawn));
        const panel = document.querySelector('[aria-label="The file many.csv"]')?.textContent ?? '';
        const [share] = /\d+ %/.exec(panel) ?? [];
        if (share) said.add(share);
        if (/10000 channels/.test(panel)) return { ms: performance.now() - began, seen: said.size };
      }
    });
    whole.push(ms);
    shares = Math.max(shares, seen);
  }
  report(
    'A file of 50,000 rows dropped on a plan, until it says what came of it',
    whole,
    'ms',
    `${shares} shares of it were said meanwhile`,
  );

  const made = await fetch(`${world.url}/api/directories/own`, {
    method: 'POST',
    body: JSON.stringify({ name: 'marks.csv', base64: Buffer.from(stations()).toString('base64') }),
  });
  if (!made.ok) throw new Error(await made.text());
  await page.goto(`${world.url}/find?plan=${planId}`);
  await page.waitForSelector('[aria-label=Map] canvas');
  await page.waitForFunction(
    () =>
      /[2-9]\d{3} stations|[1-9]\d{4} stations/.test(
        document.querySelector('[aria-label="How to begin"]')?.textContent ?? '',
      ),
    { timeout: 60_000 },
  );
  const map = await page.$('[aria-label=Map] canvas');
  const { x, y, width, height } = await map.boundingBox();
  await page.mouse.move(x + width / 2, y + height / 2);
  // Zoomed in until marks stand alone, then panned to and fro.
  await page.mouse.wheel({ deltaY: -400 });
  await new Promise((rest) => setTimeout(rest, 600));
  const frames = page.evaluate(
    () =>
      new Promise((done) => {
        const times = [];
        let last = 0;
        const frame = (now) => {
          if (last) times.push(now - last);
          last = now;
          if (times.length < 240) requestAnimationFrame(frame);
          else done(times);
        };
        requestAnimationFrame(frame);
      }),
  );
  await page.mouse.down();
  for (let n = 0; n < 160; n++)
    await page.mouse.move(
      x + width / 2 + Math.sin(n / 12) * width * 0.35,
      y + height / 2 + Math.cos(n / 17) * height * 0.3,
    );
  await page.mouse.up();
  const times = await frames;
  report(
    'The map with 5,000 marks panned, a frame, 95th',
    [quantile(times, 0.95)],
    'ms',
    `median ${quantile(times, 0.5).toFixed(1)} ms, ${times.length} frames`,
  );
  await page.close();
}
