/** The places that were typed for a route: between arrows, semicolons or commas, but not within the degrees of one place. */
export const splitRoute = (typed: string): string[] =>
  typed
    .split(/[;>→\n]|,(?!\s*[-+]?\d)/)
    .map((part) => part.trim())
    .filter(Boolean);
