import { channelOf, type Entry } from '../src/core/directory';
import type { Model } from '../src/core/models';
import { CODES, MODES, TONES, type Region } from '../src/core/radio';
import {
  newPlan,
  onAirKey,
  type Channel,
  type ChannelFields,
  type ChannelId,
  type Plan,
  type PlanId,
} from '../src/core/plan';

export const LARGE = 3600;

/** What a radio can do that holds such a plan: all modes, all bands of the register, names of any length. */
export function roomy(model: Model): Model {
  const everywhere = { from: 100_000, to: 1_300_000_000 };
  return {
    ...model,
    id: 'roomy',
    name: 'Roomy',
    slots: { first: 0, count: 4000 },
    modes: [...MODES],
    tones: [...TONES],
    codes: [...CODES],
    names: { length: 32, characters: `${model.names.characters}abcdefghijklmnopqrstuvwxyz` },
    bands: [{ name: 'all', receive: everywhere, transmit: everywhere }],
    powers: [25, 5, 1, 0.5].map((watts) => ({ label: `${watts} W`, milliwatts: watts * 1000 })),
  };
}

const idOf = (n: number) => `ch_large${String(n).padStart(5, '0')}` as ChannelId;

/** Every so many channels one has something wrong, a different thing each time; some fifty in all. */
const FAULTS: ((fields: ChannelFields) => Partial<ChannelFields>)[] = [
  () => ({ access: { kind: 'analogue', send: { kind: 'tone', tone: 1108 }, expect: null }, mode: 'FM' }),
  ({ rx }) => ({ tx: rx - 100_000, txFixed: true }),
  () => ({ alwaysOn: true, scan: true }),
  () => ({ power: 25_000, rx: 446_006_250, tx: 446_006_250, mode: 'NFM' }),
  () => ({ rx: 162_400_000, tx: 162_400_000, mode: 'FM' }),
];
const EVERY = 120;

/** Ways in which somebody keeps a station: to use it, to hear it, to hear it in the other width. */
const WAYS = ['use', 'hear', 'narrow', 'wide'] as const;

/** A station as somebody keeps it; nothing where it is not kept that way. Where inputs lie among outputs nobody keeps all. */
function asKept(entry: Entry, way: (typeof WAYS)[number], region: Region): ChannelFields[] {
  const uhf = entry.output > 426_000_000 && entry.output < 442_000_000;
  const made = channelOf(entry, 'relay-register', way === 'use' ? '{name}' : `${way} {name}`, region, 5000);
  if (!made.ok) throw new Error(made.reason);
  const fields = made.value;
  if (way === 'wide')
    return fields.mode === 'NFM' && fields.tx !== null ? [{ ...fields, tx: null, mode: 'FM' }] : [];
  if (way === 'use') return fields.tx === null || uhf ? [{ ...fields, tx: null }] : [fields];
  if (way === 'hear') return fields.tx === null || uhf ? [] : [{ ...fields, tx: null }];
  return fields.mode === 'FM' ? [{ ...fields, tx: null, mode: 'NFM' }] : [];
}

/**
 * A plan of so many channels out of the stations of a register, as somebody has it who keeps all of them: each repeater, then
 * each once more to listen to alone. `bad` makes something of nearly every channel wrong, for a plan with thousands of findings.
 */
export function largePlan(entries: readonly Entry[], { channels = LARGE, bad = false } = {}): Plan {
  const owner = { callSign: 'Q7KWD', region: 'orrin' as const, grade: 'full' as const, strict: false };
  const details = { name: bad ? 'All of it, badly' : 'All of the isles', modelId: 'tern-p2', owner };
  const seen = new Set<string>();
  const all = WAYS.flatMap((way) => entries.flatMap((entry) => asKept(entry, way, owner.region))).filter(
    (fields) => bad || (seen.has(onAirKey(fields)) ? false : seen.add(onAirKey(fields))),
  );
  const made = Array.from({ length: channels }, (_, n): Channel => {
    const fields = all[n % all.length]!;
    const faulty = bad ? n % 10 !== 0 : n % EVERY === EVERY - 1;
    const fault = faulty ? FAULTS[(bad ? n : Math.floor(n / EVERY)) % FAULTS.length]!(fields) : {};
    return { id: idOf(n), list: 0, slot: n, ...fields, ...fault };
  });
  return { ...newPlan('pl_largeplan' as PlanId, details), channels: made };
}
