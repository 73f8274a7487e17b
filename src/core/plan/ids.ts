import { z } from 'zod';

/** Stable ids, branded so that one kind cannot stand for another. They are made at the edge; core has no randomness. */
const id = <B extends string>(prefix: string, brand: B) =>
  z
    .string()
    .regex(
      new RegExp(`^${prefix}_[a-z0-9]{4,32}$`),
      `is not an id: it reads ${prefix}_ and 4 to 32 letters or figures`,
    )
    .brand(brand);

export const planIdSchema = id('pl', 'PlanId');
export const channelIdSchema = id('ch', 'ChannelId');
export const radioIdSchema = id('rd', 'RadioId');
export const zoneIdSchema = id('zn', 'ZoneId');
export type PlanId = z.infer<typeof planIdSchema>;
export type ChannelId = z.infer<typeof channelIdSchema>;
export type RadioId = z.infer<typeof radioIdSchema>;
export type ZoneId = z.infer<typeof zoneIdSchema>;

const FIGURES = 'abcdefghijklmnopqrstuvwxyz0123456789';

/** An id's text from random bytes that the caller brings: `makeId('ch', crypto.getRandomValues(new Uint8Array(12)))`. */
export function makeId(prefix: 'ch', random: Uint8Array): ChannelId;
export function makeId(prefix: 'zn', random: Uint8Array): ZoneId;
export function makeId(prefix: 'rd', random: Uint8Array): RadioId;
export function makeId(prefix: 'pl', random: Uint8Array): PlanId;
export function makeId(prefix: string, random: Uint8Array): string {
  return `${prefix}_${Array.from(random, (byte) => FIGURES[byte % FIGURES.length]).join('')}`;
}
