import { readFileSync } from 'node:fs';
import type { AxeResults } from 'axe-core';
import type { Page } from 'puppeteer-core';

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

const WCAG = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

/**
 * What axe finds on the page as it stands, by WCAG 2.2 A and AA, a line each; or by some of its rules alone. It looks at the first `rows` of
 * each table.
 */
async function violations(page: Page, rows: number, rules?: string[]): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(AXE);
  const results = (await page.evaluate(
    (options, after) =>
      (window as unknown as { axe: { run: (where: object, options: object) => Promise<unknown> } }).axe.run(
        {
          exclude: [
            [`tbody tr:nth-child(n + ${after})`],
            [`[role=rowgroup] > [role=row]:nth-child(n + ${after})`],
          ],
        },
        options,
      ),
    // Of what passes one element each is enough: to work out how each could be found takes most of the time.
    { runOnly: rules ?? WCAG, resultTypes: ['violations'] },
    rows + 1,
  )) as AxeResults;
  expect(results.passes.length).toBeGreaterThan(rules ? 0 : 10);
  return results.violations.flatMap(({ id, help, nodes }) =>
    nodes.slice(0, 3).map((node) => `${id} (${help}): ${node.target.join(' ')} ${node.html.slice(0, 160)}`),
  );
}

/** Shows the page in the other theme, its colours at rest. */
async function showIn(page: Page, theme: 'light' | 'dark'): Promise<void> {
  await page.emulateMediaFeatures([{ name: 'prefers-color-scheme', value: theme }]);
  await page.evaluate(async () => {
    const changing = document.getAnimations().filter((one) => one instanceof CSSTransition);
    await Promise.allSettled(changing.map(({ finished }) => finished));
  });
}

/**
 * The same in both themes: they differ in colours alone, so that contrast is all that is looked at in the second. The rows of a table
 * are alike, and most screens have the same table beside something else; the screen that is about the table gives more `rows`.
 */
export async function violationsInBothThemes(page: Page, rows = 10): Promise<string[]> {
  await showIn(page, 'dark');
  const dark = await violations(page, rows, ['color-contrast']);
  await showIn(page, 'light');
  const light = await violations(page, rows);
  return [...light.map((one) => `light: ${one}`), ...dark.map((one) => `dark: ${one}`)];
}
