import type { Page } from 'puppeteer-core';
import { kept } from './page';
import type { Channel, onPlanPage } from './plan-page';

/** Work at the table of plans of one's own: opened, pasted into, copied from. */
export function atTable(at: ReturnType<typeof onPlanPage>) {
  /** A plan of its own, opened with the focus on its table. */
  async function newPlan(name: string): Promise<string> {
    const { body } = await at.world().api<{ plan: { id: string } }>('/api/plans', 'POST', {
      name,
      modelId: 'tern-p2',
      owner: { callSign: 'Q7ABC', grade: 'full' },
    });
    await open(at.page(), body.plan.id);
    return body.plan.id;
  }
  async function open(page: Page, id: string): Promise<void> {
    await page.goto(`${at.world().url}/plans/${id}`);
    await kept(page);
    await page.waitForSelector('[role=grid] [role=row] + [role=rowgroup] [role=row]');
    await page.focus('[role=grid]');
  }
  const channelsOf = async (id: string) =>
    (await at.world().api<{ plan: { channels: Channel[]; leftOver: Channel[] } }>(`/api/plans/${id}`)).body
      .plan;
  /** Hands a text to the table as the clipboard would. */
  const paste = (page: Page, data: Record<string, string>) =>
    page.evaluate((parts) => {
      const clipboard = new DataTransfer();
      for (const [type, text] of Object.entries(parts)) clipboard.setData(type, text);
      document
        .querySelector('[role=grid]')!
        .dispatchEvent(
          new ClipboardEvent('paste', { clipboardData: clipboard, bubbles: true, cancelable: true }),
        );
    }, data);
  /** What the table puts on the clipboard. */
  const copy = (page: Page) =>
    page.evaluate(() => {
      const clipboard = new DataTransfer();
      document
        .querySelector('[role=grid]')!
        .dispatchEvent(
          new ClipboardEvent('copy', { clipboardData: clipboard, bubbles: true, cancelable: true }),
        );
      return Object.fromEntries([...clipboard.types].map((type) => [type, clipboard.getData(type)]));
    });
  const show = async (page: Page, tab: string) => {
    await (await page.waitForSelector(
      `::-p-xpath(//*[@role="tab"][starts-with(normalize-space(), "${tab}")])`,
    ))!.click();
  };
  return { newPlan, open, channelsOf, paste, copy, show };
}
