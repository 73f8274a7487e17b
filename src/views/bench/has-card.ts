import type { Radio } from '@/core/bench';
import { modelById } from '@/core/models';

/** True where it has no cable, but a memory card. */
export const hasCard = ({ modelId }: Radio) => modelById(modelId)?.link?.kind === 'card';
