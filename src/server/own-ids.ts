import { settingIn } from '../core/image';
import { modelById, type Model } from '../core/models';
import type { Plan, RadioId, SettingValue } from '../core/plan';
import { radios } from '../db';
import { newestCopy } from './copies';
import { reading } from './database';
import { calledOf, radioOf } from './radios';

/** Own IDs of digital radios: each radio of an owner has one of its own, or a network takes two for one. */

/** The own ID in an image of a model; null where it has none, or is none. */
export function ownIdIn(image: Uint8Array, model: Model): number | null {
  const value = model.digital ? settingIn(image, model, model.digital.ownId) : undefined;
  return typeof value === 'number' && value > 0 ? value : null;
}

/** What other radios that were here hold the same own ID, by their newest copies, as they are called. */
export async function othersWithId(radioId: RadioId, ownId: number): Promise<string[]> {
  const rows = await (await reading()).select().from(radios);
  const others: string[] = [];
  for (const row of rows) {
    const model = modelById(row.modelId);
    if (row.id === radioId || !model?.digital) continue;
    const copy = await newestCopy(row.id);
    if (copy && ownIdIn(copy.image, model) === ownId) others.push(calledOf(row));
  }
  return others;
}

/** Two of several radios that would get the same own ID by a plan and what is each one's own; null where there are no two. */
export async function ownIdTwice(
  plan: Plan,
  several: readonly { radioId: RadioId; own: Readonly<Record<string, SettingValue>> }[],
): Promise<{ ownId: number; called: [string, string] } | null> {
  const known = new Map<number, string>();
  for (const { radioId, own } of several) {
    const radio = await radioOf(radioId);
    const key = modelById(radio.modelId)?.digital?.ownId;
    const ownId = key && (own[key] ?? plan.settings[radio.modelId]?.[key]);
    if (typeof ownId !== 'number' || ownId <= 0) continue;
    const called = calledOf(radio);
    const other = known.get(ownId);
    if (other !== undefined) return { ownId, called: [other, called] };
    known.set(ownId, called);
  }
  return null;
}
