import type { IncomingMessage, ServerResponse } from 'node:http';
import { z } from 'zod';
import { registerRowSchema, type RegisterRow } from '../../core/directory';
import { distanceKm } from '../../core/radio';
import { meet, type DirectoryFault } from '../directory-faults';
import { findTowns } from './gazetteer';
import { seeded } from '../random';
import { usualRegister } from './generate';

const querySchema = z.object({
  lat: z.coerce.number().min(-90).max(90),
  lon: z.coerce.number().min(-180).max(180),
  radius_km: z.coerce.number().min(1).max(2000),
  page: z.coerce.number().int().min(1).default(1),
  mode: z.string().max(10).optional(),
  service: z.string().max(40).optional(),
  from_mhz: z.coerce.number().optional(),
  to_mhz: z.coerce.number().optional(),
});

const PAGE = 100;
/** How long somebody speaks, ms. */
const ON_AIR_MS = 15_000;

/** What the keepers of the register change in it: rows put in or put right by their reference, others taken out. */
export const registerChangesSchema = z.strictObject({
  put: z
    .array(registerRowSchema.partial().extend({ ref: registerRowSchema.shape.ref }))
    .max(500)
    .default([]),
  drop: z.array(z.string().max(80)).max(500).default([]),
});
export type RegisterChanges = z.infer<typeof registerChangesSchema>;

/** A row as a later version of the register might have it. */
const reshaped = (row: unknown) => {
  const { output_mhz, input_mhz, ...rest } = row as RegisterRow;
  return {
    ...rest,
    frequencies: { output_khz: Number(output_mhz) * 1000, input_khz: Number(input_mhz) * 1000 },
  };
};

const outputsOf = (rows: readonly RegisterRow[]) =>
  Float64Array.from(rows, ({ output_mhz }) => Number(output_mhz) * 1e6);

/** The Relay Register and the gazetteer: what answers under /register. */
export class RegisterService {
  private rows = usualRegister();
  /** The output of each row, Hz. */
  private outputs = outputsOf(this.rows);
  /** The rows within 3 kHz of a frequency, Hz, by that frequency. Each radio of the bench asks whenever its page is open. */
  private readonly near = new Map<number, number[]>();
  private fault: DirectoryFault = { kind: 'none' };

  /** Changes rows, each dated today; a new one wants every field. False where one does not have them. */
  change({ put, drop }: RegisterChanges): boolean {
    const updated = new Date().toISOString().slice(0, 10);
    const byRef = new Map(this.rows.map((row) => [row.ref, row]));
    for (const { ref, ...set } of put) {
      const row = registerRowSchema.safeParse({ ...byRef.get(ref), ...set, ref, updated });
      if (!row.success) return false;
      byRef.set(ref, row.data);
    }
    for (const ref of drop) byRef.delete(ref);
    this.rows = [...byRef.values()];
    this.outputs = outputsOf(this.rows);
    this.near.clear();
    return true;
  }

  /** Who is on the air just now on a frequency, Hz: a station of the register, for a quarter of a minute now and then; null where nobody is. */
  onAir(hz: number, now: number): string | null {
    const part = Math.floor(now / ON_AIR_MS);
    const at = this.rowsNear(hz).find(
      (row) => seeded(part * 7919 + row + this.rows[row]!.ref.length)() < 0.3,
    );
    const heard = at === undefined ? undefined : this.rows[at];
    return heard ? `${heard.call || heard.site}${heard.call && heard.site ? `, ${heard.site}` : ''}` : null;
  }

  private rowsNear(hz: number): number[] {
    const known = this.near.get(hz);
    if (known) return known;
    const found: number[] = [];
    for (const [row, output] of this.outputs.entries()) if (Math.abs(output - hz) < 3000) found.push(row);
    // A radio can be set to any frequency, again and again.
    if (this.near.size >= 1000) this.near.clear();
    this.near.set(hz, found);
    return found;
  }

  order(fault: DirectoryFault): void {
    this.fault = fault;
  }

  /** Answers `/register/entries` and `/register/places`; false where the path is neither. */
  async answer(url: URL, request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    if (url.pathname !== '/register/entries' && url.pathname !== '/register/places') return false;
    await meet(this.fault, request, response, () =>
      url.pathname === '/register/places'
        ? {
            places: findTowns(
              url.searchParams.get('q') ?? '',
              Math.min(100, Number(url.searchParams.get('most') ?? 12)),
            ),
          }
        : this.entries(url),
    );
    return true;
  }

  private entries(url: URL) {
    const query = querySchema.safeParse(Object.fromEntries(url.searchParams));
    if (!query.success) return undefined;
    const { lat, lon, radius_km, page, mode, service, from_mhz, to_mhz } = query.data;
    const found =
      this.fault.kind === 'empty'
        ? []
        : this.rows.filter(
            (row) =>
              distanceKm({ lat, lon }, row) <= radius_km &&
              (mode === undefined || row.mode === mode) &&
              (service === undefined || row.service === service) &&
              (from_mhz === undefined || Number(row.output_mhz) >= from_mhz) &&
              (to_mhz === undefined || Number(row.output_mhz) <= to_mhz),
          );
    const entries: unknown[] = found.slice((page - 1) * PAGE, page * PAGE);
    if (this.fault.kind === 'other shape')
      return {
        page,
        pages: Math.ceil(found.length / PAGE),
        total: found.length,
        entries: entries.map(reshaped),
      };
    if (this.fault.kind === 'bad rows') entries.splice(0, 2, { ref: 'RR-0000' }, 'not a row');
    return { page, pages: Math.ceil(found.length / PAGE), total: found.length, entries };
  }
}
