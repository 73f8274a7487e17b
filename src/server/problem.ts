import { typeOf, type ProblemKind } from '../core/problems';
import type { ProblemDocument } from '../core/problems.schema';

/** What went wrong, for an answer after RFC 9457: a status, a short kind, and a sentence that says what to do. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    /** A word for programs, the end of the problem's `type`. */
    readonly kind: ProblemKind,
    readonly title: string,
    readonly detail: string,
    /** More members of the problem document. */
    readonly more: Record<string, unknown> = {},
  ) {
    super(detail);
  }
}

export const notFound = (what: string) => new Problem(404, 'not-found', 'Not found', `There is no ${what}.`);

/** The problem of an edit that cannot be done, and why. */
export const editRefused = (reason: string) =>
  new Problem(422, 'edit-refused', 'This cannot be done', `${reason} Nothing was changed.`);

/** The problem as it is sent. */
export function problemDocument(problem: Problem): ProblemDocument {
  const { status, kind, title, detail, more } = problem;
  return { type: typeOf(kind), title, status, detail, ...more };
}
