/**
 * The answer to something a person, file, radio or service said, which may be wrong.
 * A failure carries a sentence that says what is wrong and what to do; exceptions are kept for bugs.
 *
 * @example const r = parseFrequency('145.6'); if (r.ok) use(r.value); else show(r.reason);
 */
export type Result<T> = { ok: true; value: T; note?: string } | { ok: false; reason: string };

/** A success; `note` is a remark for the person that changes nothing. */
export function ok<T>(value: T, note?: string): Result<T> {
  return note === undefined ? { ok: true, value } : { ok: true, value, note };
}

/** A failure with its reason, a whole sentence. */
export function fail(reason: string): { ok: false; reason: string } {
  return { ok: false, reason };
}
