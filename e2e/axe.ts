import { readFileSync } from 'node:fs';
import type { AxeResults } from 'axe-core';
import type { Page } from 'puppeteer-core';

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

/** What axe finds on the page as it stands, by WCAG 2.2 A and AA, a line each. */
export async function violations(page: Page): Promise<string[]> {
  await page.evaluate(AXE);
  const results = (await page.evaluate(() =>
    (window as unknown as { axe: { run: (options: object) => Promise<unknown> } }).axe.run({
      runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'],
    }),
  )) as AxeResults;
  expect(results.passes.length).toBeGreaterThan(10);
  return results.violations.flatMap(({ id, help, nodes }) =>
    nodes.slice(0, 3).map((node) => `${id} (${help}): ${node.target.join(' ')} ${node.html.slice(0, 160)}`),
  );
}

/** The same in both themes. */
export async function violationsInBothThemes(page: Page): Promise<string[]> {
  const found: string[] = [];
  for (const theme of ['dark', 'light']) {
    await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: theme }]);
    found.push(...(await violations(page)).map((one) => `${theme}: ${one}`));
  }
  return found;
}
