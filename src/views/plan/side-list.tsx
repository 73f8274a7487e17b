import type { FindingField } from '@/core/check';
import type { ChannelId } from '@/core/plan';
import type { ShownPlan } from './use-plan';

/** What the lists beside the table have in common. */
export interface SideListProps {
  shown: ShownPlan;
  /** The chosen channel. */
  active: ChannelId | null;
  onSelect: (id: ChannelId, field: FindingField) => void;
}

/** A row of a list. */
export const item = 'border-b border-line px-3 py-2 text-[13px]';
