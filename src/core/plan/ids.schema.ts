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

/** A reference to a record of the plan, or of a document that the plan uses: `tg_watch`, `pt_harbour.tg_watch`. Only plans have channels, so channels are referred to by id alone. */
const reference = <B extends string>(prefix: string, brand: B) =>
  z
    .string()
    .regex(
      new RegExp(`^([a-z]{2}_[a-z0-9]{4,32}[.])?${prefix}_[a-z0-9]{4,32}$`),
      `is not a reference: it must be ${prefix}_ and 4 to 32 letters or digits, after the other document’s id and a full stop where it refers to another document`,
    )
    .brand(brand);

export const planIdSchema = id('pl', 'PlanId');

export const channelIdSchema = id('ch', 'ChannelId');

export const radioIdSchema = id('rd', 'RadioId');

export const zoneIdSchema = id('zn', 'ZoneId');

export const skipSetIdSchema = id('sk', 'SkipSetId');

export const scanEdgeIdSchema = id('se', 'ScanEdgeId');

export const setUpIdSchema = id('qs', 'SetUpId');
export const talkgroupIdSchema = id('tg', 'TalkgroupId');

export const receiveListIdSchema = id('rl', 'ReceiveListId');

export const scanListIdSchema = id('sl', 'ScanListId');

export const zoneReferenceSchema = reference('zn', 'ZoneId');

export const skipSetReferenceSchema = reference('sk', 'SkipSetId');

export const talkgroupReferenceSchema = reference('tg', 'TalkgroupId');

export const receiveListReferenceSchema = reference('rl', 'ReceiveListId');

export const scanListReferenceSchema = reference('sl', 'ScanListId');

export type PlanId = z.infer<typeof planIdSchema>;
export type ChannelId = z.infer<typeof channelIdSchema>;
export type RadioId = z.infer<typeof radioIdSchema>;
export type ZoneId = z.infer<typeof zoneIdSchema>;
export type SkipSetId = z.infer<typeof skipSetIdSchema>;
export type ScanEdgeId = z.infer<typeof scanEdgeIdSchema>;
export type SetUpId = z.infer<typeof setUpIdSchema>;
export type TalkgroupId = z.infer<typeof talkgroupIdSchema>;
export type ReceiveListId = z.infer<typeof receiveListIdSchema>;
export type ScanListId = z.infer<typeof scanListIdSchema>;
