import { z } from 'zod';
import { wantedText } from '../text.schema';
import { LIST_LIMIT } from './channel';
import { frequencySchema } from './channel.schema';
import { scanEdgeIdSchema } from './ids.schema';
import { EDGE_NAME_LIMIT } from './scan-edge';

/** What a person sets on a pair of scan edges; frequencies in Hz. */
export const scanEdgeFieldsSchema = z.object({
  name: wantedText(EDGE_NAME_LIMIT),
  /** The side that searches between them: the list of its channels. */
  list: z
    .int()
    .min(0)
    .max(LIST_LIMIT - 1),
  from: frequencySchema,
  to: frequencySchema,
});

export const scanEdgeSchema = scanEdgeFieldsSchema.extend({ id: scanEdgeIdSchema });

/** Two frequencies between which one side of a radio searches. */
export type ScanEdge = z.infer<typeof scanEdgeSchema>;
