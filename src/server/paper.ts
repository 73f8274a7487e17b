import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { FileAnswer } from '../api';
import type { Paper } from '../core/fit';
import type { PlanId } from '../core/plan';
import { fileName } from './export';
import { getPlan } from './plans';
import { Problem } from './problem';
import { inTurn } from './documents/turns';

/** Where Debian and others put Chromium; one can be named. */
const PLACES = [
  '/usr/bin/chromium',
  '/usr/bin/chromium-headless-shell',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome-stable',
];
const chromium = (): string | undefined =>
  [process.env.VERIDON_CHROMIUM, ...PLACES].find((path) => path !== undefined && existsSync(path));

/** True where this machine has what makes a PDF of a page. */
export const canMakePdf = (): boolean => chromium() !== undefined;

/** Where this Veridon answers; the door says its port. */
export const ownOrigin = (): string => `http://127.0.0.1:${process.env.VERIDON_PORT ?? 4320}`;

/** Longest that one takes, ms. */
const PATIENCE_MS = 40_000;

/** Most that wait for one to be made; each takes a few seconds. */
const MOST_WAITING = 6;
let waiting = 0;

const FLAGS = [
  ...['--headless', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run'],
  ...['--disable-background-networking', '--disable-component-update', '--disable-sync'],
  ...['--no-pdf-header-footer', '--virtual-time-budget=10000'],
];

/**
 * A plan on paper as PDF: its page as Chromium prints it, one at a time. Fails with what to do where there is no Chromium, or where it
 * does not come to an end. `origin` is where this Veridon answers.
 */
export async function paperPdf(id: PlanId, as: Paper, origin: string): Promise<FileAnswer> {
  const { plan } = await getPlan(id);
  const program = chromium();
  if (!program)
    throw new Problem(
      501,
      'no-printer',
      'No PDF here',
      'This machine has no Chromium, which makes them. Open the page of the paper and print it from the browser.',
    );
  if (waiting >= MOST_WAITING)
    throw new Problem(
      503,
      'too-many',
      'Too much is being printed',
      `${MOST_WAITING} wait for the printer already. Try again in half a minute.`,
    );
  waiting++;
  return inTurn('paper', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'veridon-paper-'));
    const file = join(folder, 'paper.pdf');
    try {
      const profile = join(folder, 'profile');
      await new Promise<void>((done, failed) => {
        execFile(
          program,
          [
            ...FLAGS,
            `--user-data-dir=${profile}`,
            `--print-to-pdf=${file}`,
            `${origin}/plans/${id}/paper?as=${as}`,
          ],
          { timeout: PATIENCE_MS, killSignal: 'SIGKILL' },
          (error) => (error && !existsSync(file) ? failed(error) : done()),
        );
      });
      return {
        file: await readFile(file),
        type: 'application/pdf',
        name: fileName(`${plan.name} ${as}`, 'pdf'),
      };
    } catch (error) {
      throw new Problem(
        502,
        'no-printer',
        'The PDF did not come about',
        `Chromium ended without one (${String((error as Error).message)
          .split('\n')[0]!
          .slice(0, 120)}). Open the page of the paper and print it from the browser.`,
      );
    } finally {
      await rm(folder, { recursive: true, force: true, maxRetries: 3 });
    }
  }).finally(() => waiting--);
}
