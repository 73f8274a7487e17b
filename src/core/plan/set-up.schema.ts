import { z } from 'zod';
import { text, wantedText } from '../text.schema';
import { LIST_LIMIT } from './channel';
import { channelIdSchema, setUpIdSchema, skipSetReferenceSchema, zoneReferenceSchema } from './ids.schema';
import { AUTO_DIAL, BEGINNINGS, SET_UP_NAME_LIMIT, SHOWS } from './set-up';

/** What a quick set-up does to one side of a radio. */
export const setUpSideSchema = z.object({
  begins: z.enum(BEGINNINGS),
  /** The zone whose channels the knob turns through; null for all of the side. */
  zone: zoneReferenceSchema.nullable(),
  /** The channel on which it begins, where it begins on one of the list; null for the first. */
  start: channelIdSchema.nullable(),
  /** What its scan leaves out, or takes alone; null where every channel's own scan mark decides. */
  skipSet: skipSetReferenceSchema.nullable(),
  scanning: z.boolean(),
  shows: z.enum(SHOWS),
  autoDial: text(16).refine(
    (figures) => AUTO_DIAL.test(figures),
    'is not made of the figures 0 to 9, A to D, * and #',
  ),
});
export type SetUpSide = z.infer<typeof setUpSideSchema>;

/** What a person sets on a quick set-up. */
export const setUpFieldsSchema = z.object({
  name: wantedText(SET_UP_NAME_LIMIT),
  /** One a side, in the order of the radio's lists. */
  sides: z.array(setUpSideSchema).min(1).max(LIST_LIMIT),
});

export const setUpSchema = setUpFieldsSchema.extend({ id: setUpIdSchema });

/** A stored way of operating that one key recalls. */
export type SetUp = z.infer<typeof setUpSchema>;
