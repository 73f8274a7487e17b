import { z } from 'zod';
import type { Stepwise } from './stepwise';

/**
 * Validates a value by a schema in steps: elements of long lists one by one, and the rest at once. The result is that of `safeParse`; of several wrong elements the first are told. An
 * edit of thousands of channels takes a tenth of a second, in which others would have to wait.
 */
export function* parsing<T>(schema: z.ZodType<T>, value: unknown): Stepwise<Parsed<T>> {
  const light = yield* lightened(schema, value);
  if (light !== null && 'issues' in light) return light;
  const read = z.core.safeParse(light?.schema ?? schema, light ? light.value : value);
  return read.success ? { data: read.data as T } : { issues: read.error.issues };
}

/** What was validated, or what is wrong with it. */
export type Parsed<T> = { data: T } | { issues: readonly z.core.$ZodIssue[] };

/** Lists that are longer are validated in steps of as many elements. */
const STEP = 50;

/** Wrong elements of which the issues are told. */
const MOST_WRONG = 10;

/** The checks of how long a list is. */
const LENGTHS = new Set(['max_length', 'min_length', 'length_equals']);

type Issues = z.core.$ZodIssue[];
/** A schema and a value with the long lists validated already; or what is wrong with these. */
type Light = { schema: z.core.$ZodType; value: unknown } | { issues: Issues };

const isPlain = (value: unknown): value is Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const withPath = (issues: Readonly<Issues>, at: PropertyKey): Issues =>
  issues.map((issue) => ({ ...issue, path: [at, ...issue.path] }));

/** True where there is a long list in a value, however deep. */
const hasLongList = (value: unknown): boolean =>
  Array.isArray(value)
    ? value.length > STEP || value.some(hasLongList)
    : isPlain(value) && Object.values(value).some(hasLongList);

/** Validates the long lists in a value; null where there are none. What it does not know how to take apart is left for the whole. */
function* lightened(schema: z.core.$ZodType, value: unknown): Stepwise<Light | null> {
  const { def } = (schema as z.core.$ZodTypes)._zod;
  if (def.type === 'optional' || def.type === 'nullable' || def.type === 'default')
    return value === undefined || value === null ? null : yield* lightened(def.innerType, value);
  if (def.type === 'array')
    return Array.isArray(value) && hasLongList(value)
      ? yield* lightList(schema as z.core.$ZodArray, value)
      : null;
  if (!isPlain(value)) return null;
  if (def.type === 'object') return yield* lightObject(schema as z.core.$ZodObject, value);
  if (def.type !== 'union') return null;
  const option = optionFor(schema, value);
  return option ? yield* lightened(option, value) : null;
}

function* lightList(schema: z.core.$ZodArray, value: readonly unknown[]): Stepwise<Light> {
  const { def } = schema._zod;
  const light = z.core.clone(schema, { ...def, element: z.unknown() });
  // How long it may be comes first: what is too long is not looked through. Other checks are of elements that are valid.
  const ofLength = (def.checks ?? []).filter((check) => LENGTHS.has(check._zod.def.check));
  const length = z.core.safeParse(z.core.clone(light, { ...light._zod.def, checks: ofLength }), value);
  if (!length.success) return { issues: length.error.issues };
  const parsed: unknown[] = [];
  const issues: Issues = [];
  for (const [place, element] of value.entries()) {
    if (place % STEP === STEP - 1) yield;
    const read = yield* parsing<unknown>(def.element as z.ZodType, element);
    if ('data' in read) parsed.push(read.data);
    else issues.push(...withPath(read.issues, place));
    if (issues.length >= MOST_WRONG) break;
  }
  return issues.length > 0 ? { issues } : { schema: light, value: parsed };
}

function* lightObject(schema: z.core.$ZodObject, value: Record<string, unknown>): Stepwise<Light | null> {
  const { def } = schema._zod;
  const shape: Record<string, z.core.$ZodType> = {};
  const values: Record<string, unknown> = {};
  for (const [key, field] of Object.entries(def.shape)) {
    if (!Object.hasOwn(value, key)) continue;
    const light = yield* lightened(field, value[key]);
    if (light === null) continue;
    if ('issues' in light) return { issues: withPath(light.issues, key) };
    shape[key] = light.schema;
    values[key] = light.value;
  }
  if (Object.keys(shape).length === 0) return null;
  return {
    schema: z.core.clone(schema, { ...def, shape: { ...def.shape, ...shape } }),
    value: { ...value, ...values },
  };
}

/** The option of a union that a value is to be validated by, where some fields of its own tell it. */
function optionFor(schema: z.core.$ZodType, value: Record<string, unknown>): z.core.$ZodType | undefined {
  const { def } = (schema as z.core.$ZodDiscriminatedUnion)._zod;
  if (def.discriminator === undefined) return undefined;
  return def.options.find((option) =>
    option._zod.propValues?.[def.discriminator]?.has(value[def.discriminator] as z.core.util.Primitive),
  );
}
