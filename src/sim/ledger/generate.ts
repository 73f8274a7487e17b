import { CODES, codeFigures, formatTone, TONES } from '../../core/radio';
import type { LedgerRow } from '../../core/directory';
import { pick, seeded } from '../random';
import { usualRegister } from '../register/generate';
import { ISLANDS, pointOn, TOWNS } from '../register/gazetteer';

const SERVICES = 640;

/** Who holds licences, for what, in which class, and how often it is encrypted. */
const LICENSEES: { name: string; class: LedgerRow['class']; uses: string[]; encrypted: number }[] = [
  {
    name: 'Isles Rescue',
    class: 'public safety',
    uses: ['dispatch', 'fireground', 'hill teams', 'lifeboats', 'helicopter', 'command'],
    encrypted: 0.35,
  },
  {
    name: 'Ketterby Harbour',
    class: 'marine',
    uses: ['pilots', 'tugs', 'berths', 'lock', 'harbour master'],
    encrypted: 0,
  },
  { name: 'Norrast Ferries', class: 'business', uses: ['bridge', 'car deck', 'terminal'], encrypted: 0.05 },
  { name: 'Ullsmere Water', class: 'business', uses: ['dams', 'works', 'telemetry voice'], encrypted: 0.1 },
  {
    name: 'Brannoch Quarries',
    class: 'business',
    uses: ['blasting', 'weighbridge', 'loaders'],
    encrypted: 0,
  },
  { name: 'Farrow Airfield', class: 'air', uses: ['tower', 'ground', 'information'], encrypted: 0 },
];

/** Frequencies of a class, Hz, and the shift of its repeaters. */
const RANGES: Record<
  LedgerRow['class'],
  { from: number; steps: number; step: number; shift: number | null }
> = {
  'public safety': { from: 168_000_000, steps: 78, step: 12_500, shift: null },
  marine: { from: 156_300_000, steps: 40, step: 25_000, shift: null },
  air: { from: 118_000_000, steps: 700, step: 25_000, shift: null },
  business: { from: 453_000_000, steps: 320, step: 12_500, shift: 10_000_000 },
};

const round = (degrees: number) => Math.round(degrees * 10_000) / 10_000;

/** The Isles Ledger: the same services on every machine. Some of them stand in the Relay Register too, a little otherwise. */
export function generateLedger(): LedgerRow[] {
  const random = seeded(640_1952);
  const known = usualRegister().filter(({ service }) => service === 'public safety' || service === 'marine');
  return Array.from({ length: SERVICES }, (_, index): LedgerRow => {
    const number = `IL/${String(1000 + index)}`;
    const since = `${2015 + Math.floor(random() * 11)}-${String(1 + Math.floor(random() * 12)).padStart(2, '0')}-01`;
    // Every twentieth is one that the register has as well.
    const twin = index % 20 === 7 ? known[Math.floor(index / 20) * 3] : undefined;
    if (twin)
      return {
        number,
        licensee: twin.service === 'marine' ? 'Ketterby Harbour' : 'Isles Rescue',
        use: 'shared',
        class: twin.service as 'marine' | 'public safety',
        area: twin.island,
        base_khz: Number(twin.output_mhz) * 1000,
        mobile_khz: twin.input_mhz === '' ? null : Number(twin.input_mhz) * 1000,
        signalling: index % 40 === 7 ? twin.access : '',
        emission: twin.mode,
        position: [round(twin.lat + 0.004), round(twin.lon - 0.004)],
        mast_m: twin.height_m,
        encrypted: false,
        in_service: true,
        since,
      };
    const licensee = pick(random, LICENSEES);
    const { from, steps, step, shift } = RANGES[licensee.class];
    const island = pick(random, ISLANDS);
    const { lat, lon } = pointOn(island, random);
    const towns = TOWNS.filter((town) => town.island === island.name);
    const town = pick(random, towns);
    const base = from + Math.floor(random() * steps) * step;
    const repeats = shift !== null && random() < 0.6;
    const digital = licensee.class !== 'air' && licensee.class !== 'marine' && random() < 0.3;
    return {
      number,
      licensee: licensee.name,
      use: `${pick(random, licensee.uses)}, ${town.name}`,
      class: licensee.class,
      area: island.name,
      base_khz: base / 1000,
      mobile_khz:
        licensee.class === 'marine' && random() < 0.2 ? null : (base + (repeats ? shift : 0)) / 1000,
      signalling: digital
        ? `CC${Math.floor(random() * 16)} TS${random() < 0.5 ? 1 : 2}`
        : licensee.class === 'air' || licensee.class === 'marine'
          ? ''
          : random() < 0.4
            ? `D${codeFigures(pick(random, CODES))}N`
            : formatTone(pick(random, TONES)),
      emission:
        licensee.class === 'air' ? 'AM' : digital ? 'DMR' : licensee.class === 'marine' ? 'FM' : 'NFM',
      position: [round(lat), round(lon)],
      mast_m: Math.round(8 + random() * 90),
      encrypted: random() < licensee.encrypted,
      in_service: random() < 0.97,
      since,
    };
  });
}
