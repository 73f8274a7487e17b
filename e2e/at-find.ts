import type { World } from './world';

interface Placed {
  channels: { id: string; name: string; slot: number; tx: number | null }[];
  leftOver: { name: string }[];
  zones: { name: string; members: string[] }[];
}

/** What a plan has come to, after something was placed. */
export const channelsOfPlan = async (world: World, id: string): Promise<Placed> =>
  (await world.api<{ plan: Placed }>(`/api/plans/${id}`)).body.plan;
