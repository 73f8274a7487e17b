import type { HTTPRequest, KeyInput, Page } from 'puppeteer-core';
import { channelDefaults } from '../src/core/plan';
import type { Channel } from './plan-page';
import { seeded } from '../src/sim/random';
import { strike, textOf } from './page';
import { until, type World } from './world';

/** Keys at random in the table of a plan, while code and answers are on the way; used by a journey and by npm run attack. */

/** Makes a plan with channels in slots 0 to 10 and 12 to 20 (by a radio whose slots begin at 1: from 1 on). The first gap is slot 11. */
export async function makePlanWithGap(world: World, name: string, modelId = 'tern-p2'): Promise<string> {
  const made = await world.api<{ plan: { id: string } }>('/api/plans', 'POST', {
    ...{ name, modelId },
    owner: { callSign: 'Q7ABC', grade: 'full' },
  });
  const { id } = made.body.plan;
  const first = modelId === 'tern-p2' ? 0 : 1;
  const slots = [...Array(21).keys()].filter((slot) => slot !== 11 && slot >= first);
  const channels = slots.map((slot) => ({
    ...channelDefaults(145_000_000 + slot * 25_000),
    id: `ch_gap${String(slot).padStart(6, '0')}`,
    name: `Station ${String.fromCharCode(65 + slot)}`,
  }));
  const { status, body } = await world.api(`/api/plans/${id}/edits`, 'POST', {
    base: 1,
    edit: {
      ...{ name: 'place', channels, slots },
      ...{ placement: 'next-free', at: first, range: { first, count: 150 } },
    },
  });
  if (status !== 200) throw new Error(`The plan could not be made: ${JSON.stringify(body)}`);
  return id;
}

/** Keys as somebody strikes them who types fast and looks elsewhere. */
const KEYS: readonly KeyInput[] = [
  ...(['1', '4', '5', '.', '6', 'a', 'x', '-', 'l', 's'] as const),
  ...(['Tab', 'Tab', 'Enter', 'Enter', 'Escape', 'ArrowDown', 'ArrowUp', 'ArrowRight', 'F2'] as const),
];
const CHORDS = ['Control+k', 'Control+h', 'Shift+Tab', 'Control+End'];
/** The fields that the cell of a column sets. */
const FIELDS: Record<string, string[]> = {
  slot: ['slot'],
  name: ['name'],
  // Transmit follows receive.
  rx: ['rx', 'tx', 'txFixed'],
  tx: ['tx', 'txFixed'],
  access: ['access'],
  mode: ['mode'],
  power: ['power'],
  scan: ['scan'],
};

interface StruckKey {
  key: string;
  modified: boolean;
  inGrid: boolean;
  typing: boolean;
  channel: string | null;
  column: string | null;
}

/** In the page: remembers each key with where the focus was when it came, before anything of the page hears of it. */
function rememberKeys(): void {
  const struckKeys: StruckKey[] = [];
  Object.assign(window, { struckKeys });
  window.addEventListener(
    'keydown',
    (event) => {
      const grid = document.querySelector('[role=grid]');
      const place = document.getElementById(grid?.getAttribute('aria-activedescendant') ?? '');
      struckKeys.push({
        key: event.key,
        modified: event.ctrlKey || event.altKey || event.metaKey,
        inGrid: document.activeElement === grid,
        typing: grid?.querySelector('[role=combobox]') != null,
        channel: place?.closest('[role=row]')?.getAttribute('data-channel') ?? null,
        column: place?.getAttribute('data-column') ?? null,
      });
    },
    true,
  );
}

/**
 * Strikes so many keys at random in the table of a plan that is open, and holds half of the requests back for a while. Gives how often
 * typing began, and what changed where no typing began, in sentences.
 */
export async function strikeAtRandom(
  page: Page,
  world: World,
  id: string,
  random: () => number,
  count = 48,
): Promise<{ began: number; wrong: string[] }> {
  const pick = <T>(of: readonly T[]) => of[Math.floor(random() * of.length)]!;
  const channelsNow = async () =>
    (await world.api<{ plan: { channels: Channel[] } }>(`/api/plans/${id}`)).body.plan
      .channels as unknown as Record<string, unknown>[];
  const before = await channelsNow();
  // When requests come depends on the machine: they take nothing from the row of chance that the keys are made of.
  const ofRequests = seeded(Math.floor(random() * 2 ** 31));
  const slow: HTTPRequest[] = [];
  const hear = (request: HTTPRequest) => {
    if (/_next\/static|\/api\/plans\//.test(request.url()) && ofRequests() < 0.5) slow.push(request);
    else void request.continue();
  };
  await page.setRequestInterception(true);
  page.on('request', hear);
  await page.evaluate(rememberKeys);
  /** A command of the palette may lead to another page: the keys end there. */
  let away = false;
  for (let n = 0; n < count; n++) {
    // Now and then somebody closes what has opened and comes back to the table.
    if (n % 8 === 0) {
      await strike(page, 'Escape', 'Escape');
      // In one step: between two of them the page may go.
      away = !(await page.evaluate(() => {
        const grid = document.querySelector<HTMLElement>('[role=grid]');
        grid?.focus();
        return grid !== null;
      }));
      if (away) break;
    }
    await strike(page, random() < 0.08 ? pick(CHORDS) : pick(KEYS));
    if (random() < 0.3) await slow.splice(Math.floor(random() * slow.length), 1)[0]?.continue();
  }
  page.off('request', hear);
  for (const request of slow.splice(0)) await request.continue();
  await page.setRequestInterception(false);
  const keys = await page.evaluate(() => (window as unknown as { struckKeys: StruckKey[] }).struckKeys);
  if (away) await page.goto(`${world.url}/plans/${id}`);
  else await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await until('everything to be saved', async () =>
    /^(Kept|Saved)/.test(await textOf(page, 'header [role=status]')),
  );
  /** Where typing began: channel and column. */
  const allowed = new Set<string>();
  let began = 0;
  for (const { key, modified, inGrid, typing, channel, column } of keys) {
    if (!inGrid || typing || column === null || modified) continue;
    // Typing begins with a letter or figure, or with Enter or F2.
    if (/^(.|Enter|F2)$/.test(key)) {
      allowed.add(`${channel ?? 'new'} ${column}`);
      began++;
    }
    // Where no text belongs, these two are commands for the channel with the focus.
    if (!/^(slot|rx|scan)$/.test(column)) continue;
    if (key === 'l') allowed.add(`${channel} tx`);
    if (key === 's') allowed.add(`${channel} scan`);
  }
  const after = new Map((await channelsNow()).map((one) => [one.id, one]));
  const wrong: string[] = [];
  for (const was of before) {
    const now = after.get(was.id) ?? {};
    const changed = Object.keys({ ...was, ...now }).filter(
      (field) => field !== 'unclear' && JSON.stringify(was[field]) !== JSON.stringify(now[field]),
    );
    for (const field of changed) {
      const columns = Object.keys(FIELDS).filter((column) => FIELDS[column]!.includes(field));
      const typed = columns.some((column) => allowed.has(`${String(was.id)} ${column}`));
      // A slot is typed on one channel and changes places with another.
      const swapped = field === 'slot' && [...allowed].some((one) => one.endsWith(' slot'));
      if (!typed && !swapped)
        wrong.push(
          `${String(was.name)}: ${field} is ${JSON.stringify(now[field])}, was ${JSON.stringify(was[field])}, and nobody typed there`,
        );
    }
  }
  if (wrong.length > 0) wrong.push(...keys.map((one) => JSON.stringify(one)));
  return { began, wrong };
}
