import {
  CODES,
  codeFigures,
  formatFrequency,
  formatTone,
  TONES,
  USUAL_SHIFTS,
  type Mode,
} from '../../core/radio';
import type { RegisterRow } from '../../core/directory';
import { pick, seeded } from '../random';
import { ISLANDS, pointOn, TOWNS } from './gazetteer';

const ENTRIES = 2500;
const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const FEATURES = [
  'Hill',
  'Head',
  'Ridge',
  'Point',
  'Tower',
  'North',
  'South',
  'East',
  'West',
  'Harbour',
  'Mount',
  'Cross',
  'Lighthouse',
  'Moor',
  'Law',
  'Edge',
  'Down',
  'Fell',
  'Beacon',
  'Cliff',
  'Mill',
  'Spur',
  'Knoll',
  'Common',
  'Heath',
  'Quarry',
  'Bank',
  'Stack',
  'Weir',
  'Ness',
  'Crag',
  'Combe',
  'Holm',
  'Rise',
  'Green',
];
const OUTPUTS = USUAL_SHIFTS.orrin;
/** How often stations of each band are met, in the order of the Orrin shift table: 10 m, 6 m, 2 m, 1.25 m, 70 cm three times, 23 cm. */
const OUTPUT_WEIGHTS = [2, 4, 34, 5, 20, 15, 14, 6];

function weighted(random: () => number, weights: readonly number[]): number {
  let left = random() * weights.reduce((sum, weight) => sum + weight, 0);
  return weights.findIndex((weight) => (left -= weight) < 0);
}

type Radio = Pick<RegisterRow, 'service' | 'output_mhz' | 'input_mhz' | 'access' | 'mode' | 'constant'>;

function repeater(random: () => number): Radio {
  const range = OUTPUTS[weighted(random, OUTPUT_WEIGHTS)]!;
  const steps = Math.floor((range.to - range.from) / 12_500);
  const output = range.from + Math.floor(random() * steps) * 12_500;
  const uhf = output > 400_000_000;
  const mode: Mode = pick(
    random,
    uhf ? ['NFM', 'FM', 'FM', 'DMR', 'DMR', 'C4FM', 'P25'] : ['FM', 'FM', 'NFM', 'NFM', 'C4FM', 'DMR'],
  );
  return {
    service: 'amateur',
    output_mhz: formatFrequency(output),
    input_mhz: formatFrequency(output + range.shift),
    access: accessFor(mode, random),
    mode,
    constant: false,
  };
}

function accessFor(mode: Mode, random: () => number): string {
  if (mode === 'DMR') return `CC${Math.floor(random() * 16)} TS${random() < 0.5 ? 1 : 2}`;
  if (mode === 'P25') return `NAC ${(0x200 + Math.floor(random() * 0x200)).toString(16).toUpperCase()}`;
  if (mode === 'C4FM') return '';
  const roll = random();
  if (roll < 0.16) return '';
  if (roll < 0.32) return `D${codeFigures(pick(random, CODES))}${random() < 0.85 ? 'N' : 'I'}`;
  const tone = formatTone(pick(random, TONES));
  return roll < 0.7 ? tone : `${tone}/${tone}`;
}

const at = (hz: number) => formatFrequency(hz);
const OTHERS: ((random: () => number) => Radio)[] = [
  (random) => ({
    service: 'weather',
    output_mhz: at(162_400_000 + Math.floor(random() * 7) * 25_000),
    input_mhz: '',
    access: '',
    mode: 'FM',
    constant: true,
  }),
  (random) => {
    const hz = 156_300_000 + Math.floor(random() * 40) * 25_000;
    return {
      service: 'marine',
      output_mhz: at(hz),
      input_mhz: at(hz),
      access: '',
      mode: 'FM',
      constant: false,
    };
  },
  (random) => {
    const hz = 118_000_000 + Math.floor(random() * 700) * 25_000;
    return { service: 'air', output_mhz: at(hz), input_mhz: at(hz), access: '', mode: 'AM', constant: false };
  },
  (random) => {
    const hz = 168_000_000 + Math.floor(random() * 78) * 12_500;
    return {
      service: 'public safety',
      output_mhz: at(hz),
      input_mhz: at(hz),
      access: formatTone(pick(random, TONES)),
      mode: 'NFM',
      constant: false,
    };
  },
];

/** The Relay Register: the same rows on every machine. Calls begin with Q7 on Ullsmere and Brannoch, Q8 elsewhere. */
export function generateRegister(): RegisterRow[] {
  const random = seeded(19_520_300);
  const weights = ISLANDS.map((island) => island.reach[0] * island.reach[1]);
  const calls = new Set<string>();
  const names = new Map<string, number>();
  const rows = Array.from({ length: ENTRIES }, (_, index): RegisterRow => {
    const island = ISLANDS[weighted(random, weights)]!;
    const { lat, lon } = pointOn(island, random);
    const towns = TOWNS.filter((town) => town.island === island.name).sort(
      (a, b) =>
        (a.lat - lat) ** 2 + ((a.lon - lon) * 0.62) ** 2 - ((b.lat - lat) ** 2 + ((b.lon - lon) * 0.62) ** 2),
    );
    const town = random() < 0.7 ? towns[0]! : (towns[1] ?? towns[0]!);
    const base = `${town.name} ${pick(random, FEATURES)}`;
    const nth = (names.get(base) ?? 0) + 1;
    names.set(base, nth);
    let call = '';
    do
      call = `${island.name === 'Ullsmere' || island.name === 'Brannoch' ? 'Q7' : 'Q8'}${pick(random, [...LETTERS])}${pick(random, [...LETTERS])}${pick(random, [...LETTERS])}`;
    while (calls.has(call));
    calls.add(call);
    const radio = random() < 0.82 ? repeater(random) : pick(random, OTHERS)(random);
    return {
      ref: `RR-${String(index + 1).padStart(4, '0')}`,
      call: radio.service === 'amateur' ? call : '',
      site: nth === 1 ? base : `${base} ${nth}`,
      island: island.name,
      ...radio,
      lat: Math.round(lat * 10_000) / 10_000,
      lon: Math.round(lon * 10_000) / 10_000,
      height_m: Math.round(20 + random() * random() * 600),
      on_air: random() < 0.94,
      updated: `2026-${String(1 + Math.floor(random() * 10)).padStart(2, '0')}-${String(1 + Math.floor(random() * 28)).padStart(2, '0')}`,
    };
  });
  return rows.map(withGroups);
}

let usual: readonly RegisterRow[] | undefined;
/** The rows of the Relay Register, made once. Nobody changes them. */
export const usualRegister = (): readonly RegisterRow[] => (usual ??= generateRegister());

/** Talkgroups of the whole network, in the time slot that carries them everywhere. */
const WIDE: readonly [name: string, number: number, slot: 1 | 2, encrypted?: true][] = [
  ['Isles', 100, 1],
  ['East isles', 101, 1],
  ['West isles', 102, 1],
  ['On foot', 150, 1],
  ['Isles Rescue', 416, 1, true],
  ['Weather net', 1046, 2],
  ['Evening net', 1200, 2],
];
const LOCAL: Readonly<Record<string, number>> = {
  Ullsmere: 110,
  Brannoch: 120,
  Farrow: 130,
  Hestin: 140,
  Quill: 145,
};

/** What a digital repeater carries: some of the network, its own island, and a group of its own; drawn apart, so that the rest stays as it is. */
function withGroups(row: RegisterRow, index: number): RegisterRow {
  if (row.mode !== 'DMR' || row.service !== 'amateur') return row;
  const random = seeded(7_000 + index);
  const carried = WIDE.filter(([, number]) => number === 100 || random() < 0.8);
  const groups = [
    ...carried,
    [row.island, LOCAL[row.island] ?? 199, 2] as const,
    ...(random() < 0.7 ? [[row.site.slice(0, 20).trim(), 1300 + (index % 600), 2] as const] : []),
  ].map(([name, number, slot, encrypted = false]) => ({
    ...{ slot, name, tg: String(number), tg_hex: number.toString(16).toUpperCase() },
    encrypted: Boolean(encrypted),
  }));
  return { ...row, network: 'Isles Link', groups };
}
