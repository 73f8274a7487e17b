/**
 * A long computation in short steps: it yields between them, so that whoever runs it can do other things meanwhile. What it is worked out of must not
 * change until it has ended.
 */
export type Stepwise<T> = Generator<void, T, void>;

/** Runs all steps at once. */
export function atOnce<T>(steps: Stepwise<T>): T {
  for (;;) {
    const { done, value } = steps.next();
    if (done) return value;
  }
}
