import { readRow, registerPageSchema, type Source } from '../../core/directory';
import { askDirectory, rubbish } from './asking';

const NAME = 'Relay Register';
/** Pages that are fetched at most; the rest is said to be left. */
const MOST_PAGES = 30;

/** The Relay Register, page by page. A row that cannot be read costs only itself. */
export const RELAY_REGISTER: Source = {
  id: 'relay-register',
  name: NAME,
  holds: 'repeaters and stations of the Orrin Isles',
  read({ lat, lon, radiusKm, service }, signal) {
    let total = 0;
    const of = service === undefined ? '' : `&service=${encodeURIComponent(service)}`;
    async function* stations() {
      let pages = 1;
      for (let page = 1; page <= Math.min(pages, MOST_PAGES); page++) {
        const parsed = registerPageSchema.safeParse(
          await askDirectory(
            NAME,
            `/register/entries?lat=${lat}&lon=${lon}&radius_km=${radiusKm}&page=${page}${of}`,
            signal,
          ),
        );
        if (!parsed.success) throw rubbish(NAME);
        ({ pages, total } = parsed.data);
        for (const row of parsed.data.entries) yield readRow(row);
      }
    }
    return Object.assign(stations(), { total: () => total });
  },
};
