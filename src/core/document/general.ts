import type { DocumentDifference } from './difference';
import type { AnyRecord } from './shape';

/** The edits that every type of document has; `restore` is a difference, the form that inverses take. */
export type GeneralEdit =
  | { name: 'put'; kind: string; records: AnyRecord[]; before: string | null }
  | { name: 'change'; kind: string; changes: { id: string; set: object }[] }
  | { name: 'remove'; kind: string; ids: string[] }
  | { name: 'order'; kind: string; ids: string[]; before: string | null }
  | { name: 'describe'; set: object }
  | ({ name: 'restore' } & DocumentDifference);
