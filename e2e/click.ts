import { ElementHandle, type ClickOptions } from 'puppeteer-core';
import { until } from './world';

/**
 * A click goes to a point, and the element at that point may be moving: a heading grows, a finding arrives. So every click waits
 * until its target stays in place and is not covered. A press that hits another element is cancelled and repeated. So is one that was lost:
 * its target was replaced, or could not be pressed for a moment, between the two halves of the click.
 */

interface Aim {
  landed: boolean;
  /** What the press landed on instead. */
  missed: string | null;
  /** The element was disabled while it was pressed. */
  disabled: boolean;
  /** The click has reached the element. */
  clicked: boolean;
}

declare global {
  interface Window {
    veridonAim?: Aim;
  }
  interface Element {
    /** Chromium's own: scrolls only where the element is not all in view. */
    scrollIntoViewIfNeeded: () => void;
  }
}

/** The point to click, once two frames have drawn the element in the same place; or why there is none. */
type Point = { x: number; y: number } | { reason: string };

/**
 * Finds the point to click, and cancels the next press if it misses the element. All of it in the page: to ask from outside for each part takes
 * longer than the click.
 */
const takeAim = (handle: ElementHandle): Promise<Point> =>
  handle.evaluate(async (element): Promise<Point> => {
    const words = (target: EventTarget | null) =>
      target instanceof Element ? target.outerHTML.slice(0, 200) : String(target);
    if (!element.isConnected) throw new Error('The element is detached');
    /** The middle of what is seen of its first box. */
    const middle = () => {
      const box = [...element.getClientRects()].find(({ width, height }) => width >= 1 && height >= 1);
      if (!box) return null;
      const [left, top] = [Math.max(0, box.left), Math.max(0, box.top)];
      const [right, bottom] = [Math.min(innerWidth, box.right), Math.min(innerHeight, box.bottom)];
      return right - left >= 1 && bottom - top >= 1 ? { x: (left + right) / 2, y: (top + bottom) / 2 } : null;
    };
    element.scrollIntoViewIfNeeded();
    const before = middle();
    await new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn)));
    const point = middle();
    if (!before || !point || before.x !== point.x || before.y !== point.y) return { reason: 'it moves' };
    const there = document.elementFromPoint(point.x, point.y);
    // An element that ignores the pointer is pressed through its container.
    if (!there || !(element.contains(there) || there.contains(element)))
      return { reason: `covered by ${words(there)}` };
    const belongs = (target: EventTarget | null) =>
      target === there || (target instanceof Node && element.contains(target));
    const aim: Aim = { landed: false, missed: null, disabled: false, clicked: false };
    const kinds = ['pointerdown', 'mousedown', 'pointerup', 'mouseup', 'click'];
    const end = () => {
      for (const kind of kinds) window.removeEventListener(kind, watch, true);
    };
    const watch = (event: Event) => {
      // The next press, which has a watch of its own: this one ended without a click.
      if (event.type === 'pointerdown' && (aim.landed || aim.missed !== null)) return end();
      if (event.type === 'pointerdown') {
        if (belongs(event.target)) aim.landed = true;
        else aim.missed = words(event.target);
      }
      if (element.matches(':disabled')) aim.disabled = true;
      if (event.type === 'click' && belongs(event.target)) aim.clicked = true;
      if (aim.missed !== null) {
        event.preventDefault();
        event.stopImmediatePropagation();
      }
      if (event.type === 'click') end();
    };
    for (const kind of kinds) window.addEventListener(kind, watch, true);
    window.veridonAim = aim;
    return point;
  });

/** Clicks the element that `find` returns, and finds it again if the page has replaced it. */
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

ElementHandle.prototype.click = async function click(this: ElementHandle, options: ClickOptions = {}) {
  const { mouse } = this.frame.page();
  let last = '';
  await until(
    () => `a click to land: ${last}`,
    async () => {
      const point = await takeAim(this);
      if ('reason' in point) {
        last = point.reason;
        return false;
      }
      await mouse.click(point.x, point.y, options);
      // A click that opened another page has landed, and left nothing to ask.
      const aim = await this.evaluate((element) => ({
        ...window.veridonAim,
        // An option of a list is taken when the pointer is let go, and is gone then.
        gone: !element.isConnected && element.matches('button, a'),
      })).catch(() => null);
      if (!aim) return true;
      if (aim.missed) last = `landed on ${aim.missed}`;
      else if (aim.landed && !aim.clicked && aim.gone)
        throw new Error('The element was detached while it was pressed');
      else if (aim.landed && !aim.clicked && aim.disabled) last = 'it is disabled';
      else return true;
      return false;
    },
  );
};
