import { z } from 'zod';
import { ledgerPageSchema, readLedgerRow } from '../../core/directory';
import { distanceKm } from '../../core/radio';
import { text } from '../../core/text.schema';
import { Problem } from '../problem';
import { accountOf, type Account } from './accounts';
import type { Directory } from './directory';
import { askDirectory, rubbish } from './asking';

const ID = 'isles-ledger';
const NAME = 'Isles Ledger';
/** Pages of one area that are fetched at most. */
const MOST_PAGES = 20;

const areasSchema = z.object({ areas: z.array(text(40)).max(50) });

const headersOf = ({ name, password }: Account) => ({
  Authorization: `Basic ${Buffer.from(`${name}:${password}`, 'utf8').toString('base64')}`,
});

/** Asks the ledger for its areas, which it says to nobody without an account. */
async function areas(account: Account, signal: AbortSignal): Promise<string[]> {
  const parsed = areasSchema.safeParse(await askDirectory(NAME, '/ledger/areas', signal, headersOf(account)));
  if (!parsed.success) throw rubbish(NAME);
  return parsed.data.areas;
}

/** The Isles Ledger: licensed services by area, for those who have an account. */
export const ISLES_LEDGER: Directory = {
  id: ID,
  name: NAME,
  holds: 'licensed services of the Orrin Isles: rescue, harbours, ferries, works',
  wantsAccount: true,
  async tryAccount(account, signal) {
    await areas(account, signal);
  },
  read(circle, signal) {
    let total = 0;
    async function* stations() {
      const account = await accountOf(ID);
      if (!account)
        throw new Problem(
          502,
          'account-wanted',
          'The Isles Ledger wants an account',
          'It answers nobody without a name and password. Type yours, and search again.',
        );
      for (const area of await areas(account, signal)) {
        let from: number | null = 0;
        for (let page = 0; from !== null && page < MOST_PAGES; page++) {
          const parsed = ledgerPageSchema.safeParse(
            await askDirectory(
              NAME,
              `/ledger/services?area=${encodeURIComponent(area)}&from=${from}`,
              signal,
              headersOf(account),
            ),
          );
          if (!parsed.success) throw rubbish(NAME);
          for (const row of parsed.data.services) {
            const read = readLedgerRow(row);
            // It knows areas, not circles.
            if (read.ok && distanceKm(circle, read.value) > circle.radiusKm) continue;
            if (read.ok && circle.service !== undefined && read.value.service !== circle.service) continue;
            total++;
            yield read;
          }
          const { next }: { next: number | null } = parsed.data;
          if (next !== null && next <= from) throw rubbish(NAME);
          from = next;
        }
      }
    }
    return Object.assign(stations(), { total: () => total });
  },
};
