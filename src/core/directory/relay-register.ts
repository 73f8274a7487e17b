import { z } from 'zod';
import { MODES, parseAccess, parseFrequency } from '../radio';
import { fail, ok, type Result } from '../result';
import { text, wantedText } from '../text.schema';
import { callNumberSchema } from '../plan/talkgroup.schema';
import type { Entry, EntryGroup } from './entry';

/** A row as the Relay Register sends it: frequencies as texts in MHz, access in trade notation. */
/** A talkgroup as the Relay Register has it: its number as decimal and as hexadecimal figures. */
const groupRowSchema = z.object({
  slot: z.union([z.literal(1), z.literal(2)]),
  name: wantedText(32),
  tg: z.string().regex(/^\d{1,8}$/, 'is no decimal number'),
  tg_hex: z.string().regex(/^[0-9A-F]{1,6}$/, 'is no hexadecimal number'),
  encrypted: z.boolean(),
});

export const registerRowSchema = z.object({
  ref: wantedText(80),
  call: text(16),
  site: wantedText(60),
  island: text(40),
  service: text(40),
  output_mhz: text(20),
  /** Empty for stations that only send. */
  input_mhz: text(20),
  access: text(40),
  mode: text(10),
  lat: z.number().min(-90).max(90),
  lon: z.number().min(-180).max(180),
  height_m: z.number().min(0).max(9000),
  on_air: z.boolean(),
  constant: z.boolean(),
  updated: text(40),
  /** Digital repeaters alone have these. */
  network: text(40).optional(),
  groups: z.array(groupRowSchema).max(64).optional(),
});
export type RegisterRow = z.infer<typeof registerRowSchema>;

/** A page of the Relay Register; its rows are read one by one, so that one bad row costs only itself. */
export const registerPageSchema = z.object({
  page: z.int().min(1),
  pages: z.int().min(0),
  total: z.int().min(0),
  entries: z.array(z.unknown()).max(500),
});

/** Reads a row; fails with what is wrong with it. */
export function readRow(row: unknown): Result<Entry> {
  const parsed = registerRowSchema.safeParse(row);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return fail(`${issue.path.join('.') || 'the row'}: ${issue.message}`);
  }
  const { ref, output_mhz, input_mhz, height_m, on_air, mode, access, groups, ...rest } = parsed.data;
  const output = parseFrequency(`${output_mhz} MHz`);
  if (!output.ok) return fail(`${ref}: ${output.reason}`);
  const input = input_mhz === '' ? ok(null) : parseFrequency(`${input_mhz} MHz`);
  if (!input.ok) return fail(`${ref}: ${input.reason}`);
  const known = MODES.find((name) => name === mode);
  if (!known) return fail(`${ref}: the mode ${mode} is not known`);
  // Nothing is open.
  const opens = parseAccess(access);
  if (!opens.ok) return fail(`${ref}: ${opens.reason}`);
  const carried: EntryGroup[] = [];
  for (const { slot, name, tg, tg_hex, encrypted } of groups ?? []) {
    const number = callNumberSchema.safeParse(Number(tg));
    if (!number.success) return fail(`${ref}: the talkgroup ${tg} ${number.error.issues[0]!.message}`);
    if (number.data !== parseInt(tg_hex, 16))
      return fail(`${ref}: the talkgroup “${name}” is ${tg} in one column and 0x${tg_hex} in the other`);
    carried.push({ slot, name, number: number.data, ...(encrypted && { encrypted }) });
  }
  return ok({
    ...rest,
    ...(groups && { groups: carried }),
    ref,
    output: output.value,
    input: input.value,
    access: opens.value,
    mode: known,
    height: height_m,
    onAir: on_air,
    encrypted: false,
  });
}
