import { z } from 'zod';

const common = {
  key: z.string(),
  label: z.string(),
  restart: z.boolean(),
  /** True for a value of one unit, which goes to no other. */
  unitOwn: z.boolean(),
};

export const settingInfoSchema = z.discriminatedUnion('kind', [
  z.object({
    ...common,
    kind: z.literal('choice'),
    values: z.array(z.union([z.string(), z.number(), z.boolean()])),
  }),
  z.object({ ...common, kind: z.literal('text'), length: z.int() }),
  /** A whole number of `unit`; for a shift, of 1,000 Hz. */
  z.object({ ...common, kind: z.literal('number'), unit: z.int(), least: z.number(), most: z.number() }),
]);

/** What a setting of a radio is called and can stand at. */
export type SettingInfo = z.infer<typeof settingInfoSchema>;
