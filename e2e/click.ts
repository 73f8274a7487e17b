import { ElementHandle, type ClickOptions } from 'puppeteer-core';
import { until } from './world';

/**
 * A click aims at a place, and what stands there may just be moving: a heading grows, a finding arrives. So every click waits
 * until its target rests and is not covered, and a press that lands on something else is kept from the page and made again.
 */

interface Aim {
  landed: boolean;
  /** What the press landed on instead. */
  missed: string | null;
}

declare global {
  interface Window {
    veridonAim?: Aim;
  }
}

/** Where the element is once two frames have shown it at the same place; null while it moves. */
async function restingPoint(handle: ElementHandle, offset: ClickOptions['offset']) {
  const before = await handle.clickablePoint(offset).catch(() => null);
  await handle.evaluate(
    () => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))),
  );
  const after = await handle.clickablePoint(offset).catch(() => null);
  return before && after && before.x === after.x && before.y === after.y ? after : null;
}

/** Has the next press that misses the element kept from the page. Gives what covers the element, or null. */
const takeAim = (handle: ElementHandle, point: { x: number; y: number }) =>
  handle.evaluate((element, { x, y }) => {
    const words = (target: EventTarget | null) =>
      target instanceof Element ? target.outerHTML.slice(0, 200) : String(target);
    const there = document.elementFromPoint(x, y);
    // What lets the pointer through is pressed by way of what holds it.
    if (!there || !(element.contains(there) || there.contains(element))) return words(there);
    const belongs = (target: EventTarget | null) =>
      target === there || (target instanceof Node && element.contains(target));
    const aim: Aim = { landed: false, missed: null };
    const kinds = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click'];
    const watch = (event: Event) => {
      if (event.type === 'pointerdown') {
        if (belongs(event.target)) aim.landed = true;
        else aim.missed = words(event.target);
      }
      if (aim.missed !== null) {
        event.preventDefault();
        event.stopImmediatePropagation();
      }
      if (aim.landed || event.type === 'click')
        for (const kind of kinds) window.removeEventListener(kind, watch, true);
    };
    for (const kind of kinds) window.addEventListener(kind, watch, true);
    window.veridonAim = aim;
    return null;
  }, point);

/** Clicks on what `find` gives, found again where the page has put another element in its place meanwhile. */
export const clickOn = (find: () => Promise<ElementHandle>, options?: ClickOptions): Promise<unknown> =>
  until('an element that stays', async () => {
    try {
      await (await find()).click(options);
      return true;
    } catch (error) {
      if (/detached/.test(String(error))) return false;
      throw error;
    }
  });

const plainClick = ElementHandle.prototype.click;

ElementHandle.prototype.click = async function click(this: ElementHandle, options: ClickOptions = {}) {
  await this.scrollIntoView();
  let last = 'it moves';
  await until(
    () => `a click to land: ${last}`,
    async () => {
      const point = await restingPoint(this, options.offset);
      if (!point) return false;
      const covered = await takeAim(this, point);
      if (covered !== null) last = `covered by ${covered}`;
      if (covered !== null) return false;
      await plainClick.call(this, options);
      // A click that opened another page has landed, and left nothing to ask.
      const missed = await this.evaluate(() => window.veridonAim?.missed ?? null).catch(() => null);
      if (missed !== null) last = `landed on ${missed}`;
      return missed === null;
    },
  );
};
