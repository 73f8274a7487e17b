import { typeOf } from './types';

/** The label of a revision as the log has it: its parts, or in older logs its words. */
export interface SavedLabel {
  documentId: string;
  label: string;
  labelParts: object | null;
}

/** The label in words. A restored backup may hold anything. */
export const wordsOfLabel = ({ documentId, label, labelParts }: SavedLabel): string =>
  labelParts === null ? label : (typeOf(documentId).labelWords(labelParts) ?? (label || 'Change'));

/** The parts of a label; of an older log its words are the only one. */
export const partsOfLabel = ({ label, labelParts }: SavedLabel): object =>
  labelParts ?? { of: 'together', label };
