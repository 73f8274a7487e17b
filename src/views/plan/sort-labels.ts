import type { SortKey } from '@/core/plan';
import { HEADINGS } from './channel-row';

/** What the sort keys are called: as the columns. */
export const SORT_LABELS: Record<SortKey, string> = {
  name: HEADINGS.name,
  receive: HEADINGS.rx,
  transmit: HEADINGS.tx,
  mode: HEADINGS.mode,
  power: HEADINGS.power,
};
