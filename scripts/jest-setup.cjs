/* global expect, Buffer */
// Jest compares bytes one by one, which takes seconds for a few hundred memories of radios.
expect.addEqualityTesters([
  (one, other) =>
    one instanceof Uint8Array &&
    other instanceof Uint8Array &&
    one.constructor === other.constructor &&
    Buffer.compare(one, other) === 0
      ? true
      : undefined,
]);
// Enough to find the line; of a hundred frames, which Jest sets, each error and each expectation makes a list.
Error.stackTraceLimit = 20;
