import { and, eq, isNull } from 'drizzle-orm';
import type { RadioCondition } from '../core/bench';
import type { Ident } from '../core/link';
import { modelById, type Model } from '../core/models';
import { makeId, type RadioId } from '../core/plan';
import { radios } from '../db';
import { reading, writing } from './database';
import { notFound } from './problem';

/** What sentences call a radio: its serial, or the name of its model where it has none. */
export const calledOf = ({ serial, modelId }: { serial: string | null; modelId: string }): string =>
  serial ?? `the ${modelById(modelId)?.name ?? modelId}`;

/** A radio by our id of it; a problem where there is none. */
export async function radioOf(id: RadioId) {
  const database = await reading();
  const [radio] = await database.select().from(radios).where(eq(radios.id, id));
  if (!radio) throw notFound(`radio ${id}`);
  return radio;
}

/**
 * Notes that a radio was on the bench, and in which state it is. Gives our id of it: by model and serial; of a model that has
 * no serial to say there is one.
 */
export async function seeRadio(ident: Ident, model: Model): Promise<RadioId> {
  const database = await writing();
  const seen = {
    firmware: ident.firmware,
    state: ident.halfWritten ? ('half written' as const) : ('whole' as const),
    lastSeen: new Date(),
    battery: ident.battery,
  };
  const same = and(
    eq(radios.modelId, model.id),
    ident.serial === null ? isNull(radios.serial) : eq(radios.serial, ident.serial),
  );
  const [known] = await database.update(radios).set(seen).where(same).returning({ id: radios.id });
  if (known) return known.id;
  const id = makeId('rd', crypto.getRandomValues(new Uint8Array(12)));
  await database
    .insert(radios)
    .values({ id, serial: ident.serial, modelId: model.id, region: ident.region, ...seen })
    // Another process has seen it in the meantime.
    .onConflictDoNothing();
  const [first] = await database.select({ id: radios.id }).from(radios).where(same);
  return first!.id;
}

/** The models by which a serial is known; there may be several, of makers that count alike. */
export async function modelsWithSerial(serial: string): Promise<string[]> {
  const database = await reading();
  const rows = await database
    .select({ modelId: radios.modelId })
    .from(radios)
    .where(eq(radios.serial, serial));
  return rows.map(({ modelId }) => modelId);
}

export async function setRadioState(id: RadioId, condition: RadioCondition): Promise<void> {
  const database = await writing();
  await database.update(radios).set({ state: condition }).where(eq(radios.id, id));
}
