import type { Result } from '../result';
import type { Stepwise } from '../stepwise';
import { differenceOf, type DocumentDifference } from './difference';
import { rebased } from './rebase';
import type { AnyDocument, Shape } from './shape';

/**
 * A type of document: what the log, revisions, undo, merging, repeated changes and announcements need to know of it. A plan is one type. A type is an
 * index of its edits beside its shape; `simpleType` makes one of the general edits alone.
 */
export interface DocumentType<D extends AnyDocument = AnyDocument, E extends object = object> {
  /** What the tables have of it: `plan`. */
  readonly name: string;
  /** What ids of its documents begin with. */
  readonly idPrefix: string;
  readonly shape: Shape;
  /** Runs an edit: succeeds whole, or says why not; pure. */
  apply(document: D, edit: E): Result<D>;
  /** What the label of an edit says, as the log has it; `document` is the one that it is run on. */
  label(edit: E, document: D): object;
  /** The words of a label; null where it is none of this Veridon. */
  labelWords(label: unknown): string | null;
  /** The edit that a value out of a log is; throws where it is none, as Zod does. */
  readingEdit(value: unknown): Stepwise<E>;
  /** The edit that applies a difference. */
  restoring(difference: DocumentDifference): E;
}

/** The edit that leads from `after` back to `before`: found by comparing the two, so it fits every edit. */
export const inverseBetween = <D extends AnyDocument, E extends object>(
  type: DocumentType<D, E>,
  before: D,
  after: D,
): E => type.restoring(differenceOf(type.shape, after, before));

/** Runs an edit that was made on an old revision again on the newest; see `rebased`. */
export const rebaseOn = <D extends AnyDocument, E extends object>(
  type: DocumentType<D, E>,
  edit: E,
  on: { base: D; newest: D },
): Result<D> => rebased(type.shape, (document: D, one: E) => type.apply(document, one), edit, on);
