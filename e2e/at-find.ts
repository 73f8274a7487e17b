import type { Page } from 'puppeteer-core';
import type { World } from './world';

interface Placed {
  channels: { id: string; name: string; slot: number; tx: number | null }[];
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
