import { desc, eq, max } from 'drizzle-orm';
import { ownFault, type UnitValues } from '../core/image';
import { modelById } from '../core/models';
import type { RadioId } from '../core/plan';
import { radios, unitValues } from '../db';
import { reading, writing } from './database';
import { Problem } from './problem';
import { calledOf, radioOf } from './radios';

/** The values of one unit: its ID, its call sign, its greeting. They are rows of the unit with a log, and no other unit gets them. */

type Transaction = Parameters<Parameters<Awaited<ReturnType<typeof writing>>['transaction']>[0]>[0];

/** Most entries of the log that are given. */
const LOG_LIMIT = 100;

const shared = globalThis as { veridonValueEars?: Map<RadioId, Set<() => void>> };
const ears = (shared.veridonValueEars ??= new Map<RadioId, Set<() => void>>());

/** Hears each time that the values of a unit change, until what it gives is called. */
export function onUnitValues(radioId: RadioId, hear: () => void): () => void {
  const own = ears.get(radioId) ?? new Set();
  ears.set(radioId, own.add(hear));
  return () => {
    own.delete(hear);
    if (own.size === 0) ears.delete(radioId);
  };
}

/** Refuses values that the radio cannot have, or that are not a unit's own. */
export async function wantUnitValues(radioId: RadioId, values: UnitValues): Promise<void> {
  const radio = await radioOf(radioId);
  const model = modelById(radio.modelId);
  const fault = model ? ownFault(model, values) : null;
  if (fault !== null)
    throw new Problem(
      422,
      'unit-values',
      'The radio cannot have this value',
      `${calledOf(radio)}: ${fault} Nothing was changed.`,
    );
}

/** Saves what a unit's own values are from now on, and logs each that is another than before. */
export async function saveUnitValues(
  transaction: Transaction,
  radioId: RadioId,
  values: UnitValues,
): Promise<void> {
  const [row] = await transaction
    .select({ own: radios.own })
    .from(radios)
    .where(eq(radios.id, radioId))
    .for('update');
  const before: UnitValues = row?.own ?? {};
  const changed = [...new Set([...Object.keys(before), ...Object.keys(values)])].filter(
    (key) => before[key] !== values[key],
  );
  if (changed.length === 0) return;
  await transaction
    .update(radios)
    .set({ own: { ...values } })
    .where(eq(radios.id, radioId));
  const [last] = await transaction
    .select({ number: max(unitValues.number) })
    .from(unitValues)
    .where(eq(unitValues.radioId, radioId));
  const first = (last?.number ?? 0) + 1;
  await transaction
    .insert(unitValues)
    .values(changed.map((key, at) => ({ radioId, number: first + at, key, value: values[key] ?? null })));
}

/** A unit's own values, with what they were before: newest first; null where a value was removed. */
export async function unitValuesOf(radioId: RadioId) {
  const { own } = await radioOf(radioId);
  const database = await reading();
  const log = await database
    .select()
    .from(unitValues)
    .where(eq(unitValues.radioId, radioId))
    .orderBy(desc(unitValues.number))
    .limit(LOG_LIMIT);
  return { own, log: log.map(({ key, value, at }) => ({ key, value, at: at.toISOString() })) };
}

/** Sets a unit's own values, which its next write gets, whatever the plan. */
export async function setUnitValues(radioId: RadioId, values: UnitValues) {
  await wantUnitValues(radioId, values);
  const database = await writing();
  await database.transaction((transaction) => saveUnitValues(transaction, radioId, values));
  for (const hear of ears.get(radioId) ?? []) hear();
  return unitValuesOf(radioId);
}
