import { labelPartsSchema, labelWords, type LabelParts } from '../core/plan';

/** The label of a revision as the log has it: its parts, or in older logs its words. */
export interface SavedLabel {
  label: string;
  labelParts: LabelParts | null;
}

/** The label in words. */
export function wordsOfLabel({ label, labelParts }: SavedLabel): string {
  if (labelParts === null) return label;
  // A restored backup may hold anything.
  const parts = labelPartsSchema.safeParse(labelParts);
  return parts.success ? labelWords(parts.data) : label || 'Change';
}

/** The parts of a label; of an older log its words are the only one. */
export const partsOfLabel = ({ label, labelParts }: SavedLabel): LabelParts =>
  labelParts ?? { of: 'together', label };
