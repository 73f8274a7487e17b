/**
 * fast-check as every property here uses it; not used by the application. `npm test` always runs the same cases: one fixed seed, which
 * VERIDON_SEED replaces. `npm run explore` runs other cases, and more of them (VERIDON_RUNS times as many).
 *
 * Use it in place of fast-check: `import * as fc from '…/property.test.kit'`.
 */
import { seed, USUAL_SEED } from '../../scripts/seed.mjs';
import {
  assert as assertPlain,
  constantFrom,
  integer,
  oneof,
  string,
  type IAsyncProperty,
  type IProperty,
  type Parameters,
} from 'fast-check';

export * from 'fast-check';
export { seed as SEED };

/** How many times as many cases as usual each property runs. */
export const RUNS_FACTOR = Number(process.env.VERIDON_RUNS || 1);
/** True in `npm run explore`, which also sweeps every byte where `npm test` takes a sample. */
export const EXPLORING = process.env.VERIDON_EXPLORE === '1';

const USUAL_RUNS = 100;

/** Checks a property like fast-check's `assert`, with the seed and the number of cases of this run. */
export function assert<Ts>(property: IAsyncProperty<Ts>, parameters?: Parameters<Ts>): Promise<void>;
export function assert<Ts>(property: IProperty<Ts>, parameters?: Parameters<Ts>): void;
export function assert<Ts>(
  property: IProperty<Ts> | IAsyncProperty<Ts>,
  parameters: Parameters<Ts> = {},
): Promise<void> | void {
  const { numRuns = USUAL_RUNS } = parameters;
  const all = { seed, ...parameters, numRuns: numRuns * RUNS_FACTOR };
  return assertPlain(property as IProperty<Ts>, all);
}

const SURROGATES = { from: 0xd800, count: 0x800 };
const anyCharacter = integer({ min: 0, max: 0x10_ffff - SURROGATES.count }).map((nth) =>
  String.fromCodePoint(nth < SURROGATES.from ? nth : nth + SURROGATES.count),
);
/** Keys that objects have already. */
const KEYS = [
  '__proto__',
  'constructor',
  'hasOwnProperty',
  'isPrototypeOf',
  'key',
  'ref',
  'toString',
  'valueOf',
];
/**
 * Any text of Unicode of at most so many characters. fast-check's own takes a second before its first text: it makes a table of all characters,
 * to find out which texts it could have made.
 */
export const anyText = (maxLength = 10) =>
  oneof(
    { weight: 12, arbitrary: string({ unit: anyCharacter, maxLength }) },
    // Most texts are short and plain.
    { weight: 6, arbitrary: string({ maxLength }) },
    { weight: 1, arbitrary: constantFrom(...KEYS.filter(({ length }) => length <= maxLength)) },
  );

/** Expects a count of what a generator reached to be at least `least`; only checked with the usual seed, like `tally`. */
export function expectReached(what: string, count: number, least: number) {
  if (seed === USUAL_SEED && count < least)
    throw new Error(`“${what}”: ${count} cases; at least ${least} are expected.`);
}

/**
 * Counts what a property's generator reached, by kind: a property that rarely meets its subject proves little. The counts are only checked
 * with the usual seed, whose cases are the same in every run; with other seeds they would fail by chance.
 */
export function tally() {
  const counts = new Map<string, { all: number; accepted: number }>();
  const of = (kind: string) => counts.get(kind) ?? { all: 0, accepted: 0 };
  return {
    /** Counts one case of a kind, and whether it was what the property is about. */
    count(kind: string, accepted = true) {
      const before = of(kind);
      counts.set(kind, { all: before.all + 1, accepted: before.accepted + (accepted ? 1 : 0) });
    },
    /** Expects more than this share of the kind's cases, 0 to 1, to have been accepted. */
    expectShare(kind: string, share: number) {
      if (seed !== USUAL_SEED) return;
      const { all, accepted } = of(kind);
      if (accepted <= share * all || all === 0)
        throw new Error(`“${kind}”: ${accepted} of ${all} cases; more than ${share * 100}% are expected.`);
    },
    /** Expects at least so many accepted cases of the kind. */
    expectTimes(kind: string, times: number) {
      expectReached(kind, of(kind).accepted, times);
    },
    /** Expects no accepted case of the kind; holds with any seed. */
    expectNone(kind: string) {
      const { accepted } = of(kind);
      if (accepted > 0) throw new Error(`“${kind}”: ${accepted} cases; none are expected.`);
    },
  };
}
