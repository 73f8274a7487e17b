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
}

/** The point to click once two frames have drawn the element in the same place; null while it moves. */
async function restingPoint(handle: ElementHandle, offset: ClickOptions['offset']) {
  const before = await handle.clickablePoint(offset).catch(() => null);
  await handle.evaluate(
    () => new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn))),
  );
  const after = await handle.clickablePoint(offset).catch(() => null);
  return before && after && before.x === after.x && before.y === after.y ? after : null;
}

/** Cancels the next press if it misses the element. Returns what covers the element, or null. */
const takeAim = (handle: ElementHandle, point: { x: number; y: number }) =>
  handle.evaluate((element, { x, y }) => {
    const words = (target: EventTarget | null) =>
      target instanceof Element ? target.outerHTML.slice(0, 200) : String(target);
    const there = document.elementFromPoint(x, y);
    // An element that ignores the pointer is pressed through its container.
    if (!there || !(element.contains(there) || there.contains(element))) return words(there);
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
    return null;
  }, point);

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
