import { z } from 'zod';
import { formatFrequency, MODES, parseAccess } from '../radio';
import { fail, ok, type Result } from '../result';
import { text, wantedText } from '../text.schema';
import type { Entry } from './entry';

/** A service as the Isles Ledger sends it: frequencies in kHz, one licensee each, what is encrypted marked. */
export const ledgerRowSchema = z.object({
  number: wantedText(40),
  licensee: wantedText(60),
  use: text(60),
  class: z.enum(['public safety', 'marine', 'air', 'business']),
  area: text(40),
  base_khz: z.number().positive().max(300_000_000),
  mobile_khz: z.number().positive().max(300_000_000).nullable(),
  signalling: text(40),
  emission: text(10),
  position: z.tuple([z.number().min(-90).max(90), z.number().min(-180).max(180)]),
  mast_m: z.number().min(0).max(9000),
  encrypted: z.boolean(),
  in_service: z.boolean(),
  since: text(40),
});
export type LedgerRow = z.infer<typeof ledgerRowSchema>;

/** A page of one area of the ledger. */
export const ledgerPageSchema = z.object({
  area: text(40),
  next: z.int().nullable(),
  count: z.int().min(0),
  services: z.array(z.unknown()).max(500),
});

/** Reads a row of the ledger; fails with what is wrong with it. */
export function readLedgerRow(row: unknown): Result<Entry> {
  const parsed = ledgerRowSchema.safeParse(row);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    return fail(`${issue.path.join('.') || 'the row'}: ${issue.message}`);
  }
  const { number, licensee, use, class: service, area, base_khz, mobile_khz, ...rest } = parsed.data;
  const mode = MODES.find((name) => name === rest.emission);
  if (!mode) return fail(`${number}: the mode ${rest.emission} is not known`);
  const access = parseAccess(rest.signalling);
  if (!access.ok) return fail(`${number}: ${access.reason}`);
  // Tenths of a kHz are as fine as licences are written; what is finer is no whole number of ten Hz.
  const [output, input] = [base_khz, mobile_khz].map((khz) => (khz === null ? null : Math.round(khz * 1000)));
  if (output! % 10 !== 0 || (input !== null && input! % 10 !== 0))
    return fail(`${number}: ${formatFrequency(output!)} is not a whole number of ten Hz`);
  return ok({
    ref: number,
    call: '',
    site: [licensee, use].filter(Boolean).join(' ').slice(0, 60),
    island: area,
    service,
    output: output!,
    input: input ?? null,
    access: access.value,
    mode,
    lat: rest.position[0],
    lon: rest.position[1],
    height: rest.mast_m,
    onAir: rest.in_service,
    constant: false,
    encrypted: rest.encrypted,
    updated: rest.since,
  });
}
