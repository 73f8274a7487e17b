import type { Plan } from '../plan';
import type { CheckContext } from './finding';

/**
 * What a rule reads is seen while it runs: each field of the plan and of the rest of its context, with the value that it had. A rule depends on nothing else, so
 * that what it said stands as long as all these values are the very same.
 */

type Read = [of: 'plan' | 'context', key: string, value: unknown];

/** An object whose fields are those of another; `see` is told of each that is read. */
function watched<T extends object>(target: T, see: (key: string, value: unknown) => void): T {
  const fields = Object.keys(target).map((key): [string, PropertyDescriptor] => [
    key,
    {
      enumerable: true,
      get() {
        const value = (target as Record<string, unknown>)[key];
        see(key, value);
        return value;
      },
    },
  ]);
  return Object.defineProperties({}, Object.fromEntries(fields)) as T;
}

/** A context to run a rule in, and whether all that it read in it is the same in another one. */
export function watching(context: CheckContext): {
  context: CheckContext;
  standsIn: (other: CheckContext) => boolean;
} {
  const reads: Read[] = [];
  const seen = new Set<string>();
  const note =
    (of: Read[0]) =>
    (key: string, value: unknown): void => {
      // The plan itself is another object after each edit: only the fields that are read count.
      if (of === 'context' && key === 'plan') return;
      if (seen.has(`${of} ${key}`)) return;
      seen.add(`${of} ${key}`);
      reads.push([of, key, value]);
    };
  const plan: Plan = watched(context.plan, note('plan'));
  const withPlan = Object.defineProperties(
    {},
    { ...Object.getOwnPropertyDescriptors(context), plan: { enumerable: true, value: plan } },
  ) as CheckContext;
  return {
    context: watched(withPlan, note('context')),
    standsIn: (other) =>
      reads.every(([of, key, value]) => {
        const now: object = of === 'plan' ? other.plan : other;
        return (now as Record<string, unknown>)[key] === value;
      }),
  };
}
