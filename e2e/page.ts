import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type KeyInput, type Page } from 'puppeteer-core';
import { launchOptions } from '../scripts/browser.cjs';
import { clickOn } from './click';
import { HANG_MS, until } from './world';

/** A browser, and what a person does and sees in it. */

const CHROMIUM = process.env.VERIDON_CHROMIUM ?? '/usr/bin/chromium';

/** A browser with a profile of its own; `errors` gathers what pages complain of. */
export async function makeBrowser(): Promise<{
  browser: Browser;
  page: Page;
  errors: string[];
  close: () => Promise<void>;
}> {
  const profile = mkdtempSync(join(tmpdir(), 'veridon-browser-'));
  const options = launchOptions(CHROMIUM, profile);
  // Pages here live for seconds: compiling their hot code costs more than it saves. The accessibility
  // tree is built when a test needs it, not on every change of the page.
  const browser = await puppeteer.launch({
    ...options,
    args: [...(options.args ?? []), '--js-flags=--no-opt --no-maglev', '--disable-renderer-accessibility'],
  });
  const page = await browser.newPage();
  page.setDefaultTimeout(HANG_MS);
  await page.setViewport({ width: 1280, height: 800 });
  const errors: string[] = [];
  // A page that is left while something is not kept asks first; unanswered, the question would hold up every later step.
  page.on('dialog', (dialog) => {
    errors.push(`The page asked (${dialog.type()}): ${dialog.message()}`);
    void dialog.accept();
  });
  // The API knows of a change before the page hears of it: whoever waited by the API leaves the page as a person does, when it
  // no longer says that it is keeping something.
  const go = page.goto.bind(page);
  page.goto = async (...to) => {
    await until(
      'nothing to be kept any more',
      async () => (await textOf(page, 'header [role=status]')) !== 'Keeping…',
    );
    return go(...to);
  };
  page.click = async (selector, options) => {
    await clickOn(async () => (await page.waitForSelector(selector))!, options);
  };
  page.on('pageerror', (error) => errors.push(String(error)));
  page.on(
    'console',
    (message) =>
      message.type() === 'error' &&
      !/Failed to load resource/.test(message.text()) &&
      errors.push(message.text()),
  );
  return {
    browser,
    page,
    errors,
    close: async () => {
      await browser.close();
      rmSync(profile, { recursive: true, force: true });
    },
  };
}

/** The text of the first element that the selector finds, its white space folded; empty where there is none. */
export const textOf = (page: Page, selector: string): Promise<string> =>
  page.evaluate(
    (wanted) => (document.querySelector(wanted)?.textContent ?? '').replace(/\s+/g, ' ').trim(),
    selector,
  );

/** Waits until an element holds a text; gives all of its text. */
export async function sees(page: Page, selector: string, text: string | RegExp): Promise<string> {
  const wanted = typeof text === 'string' ? { text } : { pattern: text.source, flags: text.flags };
  try {
    // In the page itself: to ask it again and again from outside costs more than what is waited for.
    const found = await page.waitForFunction(
      (where, { text: part, pattern, flags }: { text?: string; pattern?: string; flags?: string }) => {
        const stands = (document.querySelector(where)?.textContent ?? '').replace(/\s+/g, ' ').trim();
        const holds = part !== undefined ? stands.includes(part) : new RegExp(pattern!, flags).test(stands);
        return holds && { stands };
      },
      { polling: 50, timeout: HANG_MS },
      selector,
      wanted,
    );
    return ((await found.jsonValue()) as { stands: string }).stands;
  } catch (error) {
    throw new Error(
      `Waited in vain for “${text}” in ${selector}; there stands “${(await textOf(page, selector)).slice(0, 500)}”`,
      {
        cause: error,
      },
    );
  }
}

/** Clicks the button, link or tab with that name, as soon as it is there and can be pressed. */
export async function press(page: Page, name: string): Promise<void> {
  // The tree of names is dear to make: it is asked only for the roles of which something has such a name in it.
  const rolesThere = () =>
    page.evaluate((wanted) => {
      const flat = (text: string | null) => (text ?? '').replace(/\s+/g, ' ');
      const words = flat(wanted).split(' ');
      const has = (selector: string) =>
        [...document.querySelectorAll(selector)].some((one) => {
          const text = flat(
            `${one.getAttribute('aria-label') ?? ''} ${one.textContent} ${one.getAttribute('title') ?? ''}`,
          );
          return words.every((word) => text.includes(word));
        });
      return [
        ['button', 'button:not([role]), [role=button]'],
        ['link', 'a, [role=link]'],
        ['tab', '[role=tab]'],
      ].flatMap(([role, selector]) => (has(selector!) ? [role!] : []));
    }, name);
  const find = async () => {
    for (const role of await rolesThere()) {
      const found = await page.$(`::-p-aria([name="${name}"][role="${role}"])`);
      if (found) return found;
    }
    return null;
  };
  await clickOn(() =>
    until(`a button or link “${name}” that can be pressed`, async () => {
      const found = await find();
      const ready = await found
        ?.evaluate((element) => !(element as HTMLButtonElement).disabled)
        .catch(() => false);
      return ready && found;
    }),
  );
}

/** Waits until two more frames have been drawn. */
export const framesDrawn = (page: Page) =>
  page.evaluate(() => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))));

/** Waits until all that is shown has lain still for twenty frames, which take longer where the machine is slow. */
export async function atRest(page: Page): Promise<void> {
  await page.evaluate(async () => {
    const frame = () => new Promise((drawn) => requestAnimationFrame(drawn));
    const places = () =>
      [...document.querySelectorAll('body *')]
        .map((one) => {
          const { x, y, width, height } = one.getBoundingClientRect();
          return [x, y, width, height].join(' ');
        })
        .join('\n');
    let [last, same] = ['', 0];
    // What never rests, a bar that moves, is looked at as it is.
    for (let frames = 0; same < 20 && frames < 600; frames++) {
      await frame();
      const now = places();
      same = now === last ? same + 1 : 0;
      last = now;
    }
  });
}

/**
 * The selector of a cell of the channel table, scrolled to; by slot and column. It names the channel, so that it means the same cell
 * though the rows are others a moment later.
 */
export async function cell(page: Page, slot: number, column: string): Promise<string> {
  const figures = String(slot).padStart(3, '0');
  const find = () =>
    page.evaluate(
      (wanted, name) => {
        const there = [...document.querySelectorAll('[role=grid] [data-column=slot]')].find(
          (element) => element.textContent === wanted,
        );
        if (!there) return null;
        const channel = there.closest('[role=row]')?.getAttribute('data-channel');
        // The empty row has none yet.
        return channel
          ? `[role=row][data-channel="${channel}"] [data-column="${name}"]`
          : `#cell-${there.getAttribute('data-row')}-${name}`;
      },
      figures,
      column,
    );
  const scroll = (top: number) =>
    page.evaluate((y) => {
      const scroller = document.querySelector('[role=grid]')!;
      scroller.scrollTop = y;
      return scroller.scrollTop >= scroller.scrollHeight - scroller.clientHeight - 1;
    }, top);
  await page.waitForSelector('[role=grid] [role=rowgroup] [role=row]');
  return until(`slot ${figures} in the table`, async () => {
    for (let top = 0, end = false; ; top += 250) {
      const selector = await find();
      if (selector !== null) {
        await page.$eval(selector, (element) => element.scrollIntoView({ block: 'center' }));
        return selector;
      }
      if (end) return null;
      end = await scroll(top);
      await framesDrawn(page);
    }
  });
}

/** Types into a cell as a person does: click, type over, Enter. */
export async function type(page: Page, slot: number, column: string, text: string): Promise<void> {
  await page.click(await cell(page, slot, column));
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
}

/** What the Check button of the plan counts, in words: `, 1 stop, 8 cautions`; waits until the plan has been checked. */
export const findingsCounted = (page: Page): Promise<string> =>
  until('the plan to be checked', () =>
    page.$$eval('header button', (all) => {
      const check = all.find((button) => button.textContent?.startsWith('Check'))!;
      return [...check.querySelectorAll('.sr-only')].map((part) => part.textContent).join('');
    }),
  );

/** Waits until Check counts what `words` say: it counts in a worker, a moment after each change. */
export const findingsCome = (page: Page, words: RegExp): Promise<unknown> =>
  until(`Check to count ${words}`, async () => words.test(await findingsCounted(page)));

/** All that Check says, kinds opened: the list is gone through from its top to its end, as somebody does who reads it. */
export async function findingsRead(page: Page): Promise<string> {
  const list = '[aria-label=Findings]';
  await page.waitForSelector(list);
  const closed = `${list} button[aria-expanded=false]`;
  const read = new Set<string>();
  for (let row = 0; row < 400; row++) {
    for (let more = await page.$(closed); more; more = await page.$(closed)) {
      await more.evaluate((button) => (button as HTMLElement).click());
      await page.waitForFunction(
        (one) => one.getAttribute('aria-expanded') === 'true' || !one.isConnected,
        {},
        more,
      );
    }
    for (const text of await page.$$eval(`${list} li`, (all) => all.map((one) => one.textContent ?? '')))
      read.add(text);
    const ended = await page.$eval(list, (one) => {
      const pane = one.parentElement!;
      const before = pane.scrollTop;
      pane.scrollTop += 150;
      return pane.scrollTop === before;
    });
    if (ended) break;
    await framesDrawn(page);
  }
  return [...read].join('\n');
}

/** Chooses by its label and what people read: opens the choice, takes the option. */
export async function choose(page: Page, label: string, text: string): Promise<void> {
  const choice = (await page.waitForSelector(`::-p-aria([name="${label}"][role="combobox"])`))!;
  await choice.click();
  const option = (await page.waitForSelector(`::-p-aria([name="${text}"][role="option"])`))!;
  await option.click();
  await page.waitForFunction((one) => !one.isConnected, {}, option);
}

/** What a choice stands at. */
export const chosenIn = async (page: Page, label: string): Promise<string> =>
  (await page.waitForSelector(`::-p-aria([name="${label}"][role="combobox"])`))!.evaluate(
    (one) => one.textContent ?? '',
  );

/** Waits until all that was done is on disk. */
export const kept = (page: Page) => sees(page, 'header [role=status]', /^Kept, revision \d+$/);

/** Strikes keys one after the other; `Control+z` is a chord. */
export async function strike(page: Page, ...names: string[]): Promise<void> {
  for (const name of names) {
    const parts = name.split('+') as KeyInput[];
    const held = parts.slice(0, -1);
    for (const key of held) await page.keyboard.down(key);
    await page.keyboard.press(parts.at(-1)!);
    for (const key of held) await page.keyboard.up(key);
  }
}
