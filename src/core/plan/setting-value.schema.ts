import { z } from 'zod';
import { text } from '../text.schema';
import { KIND_NAMES } from './kinds';

/** Most parts of a setting that has several: memories of a list, points of a curve. */
const MOST_PARTS = 128;

const simple = z.union([z.boolean(), z.number(), text(200)]);

/** A place on Earth, degrees. */
export const coordinateSchema = z.strictObject({
  lat: z.number().min(-90).max(90),
  lon: z.number().min(-180).max(180),
});

/** A record of the plan by its id. The kind goes with it, so that a plan knows its references without the model. */
export const recordReferenceSchema = z.strictObject({
  kind: z.enum(KIND_NAMES),
  id: text(40),
});

/** One value, several (null for an empty memory of a list), or several for each side of the radio. */
const oneOrSeveral = <S extends z.ZodType>(single: S) =>
  z.union([
    single,
    z.array(z.union([single.nullable(), z.array(single.nullable()).max(MOST_PARTS)])).max(MOST_PARTS),
  ]);

/** The value of a setting. */
export const settingValueSchema = oneOrSeveral(z.union([simple, coordinateSchema, recordReferenceSchema]));

/** The value of a setting as a radio has it: of a record its number. */
export const heldValueSchema = oneOrSeveral(z.union([simple, coordinateSchema]));

export type Coordinate = z.infer<typeof coordinateSchema>;
export type RecordReference = z.infer<typeof recordReferenceSchema>;
export type SettingValue = z.infer<typeof settingValueSchema>;
export type HeldValue = z.infer<typeof heldValueSchema>;
