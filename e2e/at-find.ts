import type { Page } from 'puppeteer-core';
import { strike } from './page';
import { until, type World } from './world';

interface Placed {
  channels: { id: string; name: string; slot: number; rx: number; tx: number | null }[];
  leftOver: { name: string }[];
  zones: { name: string; members: string[] }[];
}

/** What a plan has come to, after something was placed. */
export const channelsOfPlan = async (world: World, id: string): Promise<Placed> =>
  (await world.api<{ plan: Placed }>(`/api/plans/${id}`)).body.plan;

/** Drops a file on the screen of a plan. */
export const dropFile = (page: Page, name: string, bytes: Uint8Array): Promise<void> =>
  page.evaluate(
    (called, content) => {
      const data = new DataTransfer();
      data.items.add(new File([Uint8Array.from(atob(content), (sign) => sign.charCodeAt(0))], called));
      document
        .querySelector('main')!
        .dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
    },
    name,
    Buffer.from(bytes).toString('base64'),
  );

/** Drops a file on a screen that says, once something is held over it, that it takes it. */
export async function dropAnywhere(page: Page, name: string, bytes: Uint8Array): Promise<void> {
  await until('the screen to take what is held over it', () =>
    page.evaluate(() => {
      const data = new DataTransfer();
      data.items.add(new File(['x'], 'held'));
      document
        .querySelector('main')!
        .dispatchEvent(new DragEvent('dragover', { dataTransfer: data, bubbles: true, cancelable: true }));
      return document.body.textContent?.includes('Let go to open it as a plan') ?? false;
    }),
  );
  await dropFile(page, name, bytes);
}

/** Makes an empty plan for a Tern P2; its id. */
export async function newPlan({ api }: World, name: string): Promise<string> {
  const owner = { callSign: 'Q7ABC' };
  const { body } = await api<{ plan: { id: string } }>('/api/plans', 'POST', {
    name,
    modelId: 'tern-p2',
    owner,
  });
  return body.plan.id;
}

/** Chooses the first rows of the table, by the keyboard. */
export async function chooseFirst(page: Page, rows: number): Promise<void> {
  await page.focus('[role=grid]');
  await strike(page, 'Control+Home', ...Array.from({ length: rows - 1 }, () => 'Shift+ArrowDown'));
}
