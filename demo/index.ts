import {
  channelDefaults,
  newPlan,
  type Channel,
  type ChannelFields,
  type ChannelId,
  type Plan,
  type PlanId,
} from '../src/core/plan';
import { parseAccess } from '../src/core/radio';

export * from './shelf';

type Row = [
  slot: number,
  name: string,
  rx: number,
  tx: number | null,
  access: string,
  more?: Partial<ChannelFields>,
];

const WEATHER: Partial<ChannelFields> = { alwaysOn: true, scan: false };

/** What somebody in Ketterby has typed in so far: some of it good, some not. Six weather channels can still send. */
const ROWS: readonly Row[] = [
  [0, 'Calling 2 m', 145_500_000, 145_500_000, ''],
  [1, 'Calling 70 cm', 433_500_000, 433_500_000, ''],
  [2, 'Club simplex', 145_375_000, 145_375_000, '', { power: 1000 }],
  [3, 'Ullsmere Hill', 145_612_500, 145_012_500, '88.5'],
  [4, 'Brannoch Head', 145_737_500, 145_137_500, '94.8/94.8'],
  [5, 'Ketterby Quay', 430_887_500, 438_487_500, 'D023N', { mode: 'NFM', power: 2000 }],
  [6, 'Farrow Point', 433_162_500, 434_762_500, '77.0'],
  [7, 'Tamsin Tower', 145_687_500, 145_087_500, '103.5'],
  [8, 'Garrowick Ridge', 145_650_000, 145_050_000, '110.8'],
  [9, 'Ashgill Moor', 439_050_000, 431_450_000, '118.8', { mode: 'NFM' }],
  [10, 'Norrast Relay', 145_775_000, 145_275_000, '67.0'],
  [12, 'Isle Weather North', 162_400_000, 162_400_000, '', WEATHER],
  [13, 'Isle Weather South', 162_425_000, 162_425_000, '', WEATHER],
  [14, 'Isle Weather East', 162_450_000, 162_450_000, '', WEATHER],
  [15, 'Isle Weather West', 162_475_000, 162_475_000, '', { ...WEATHER, scan: true }],
  [16, 'Quill Weather', 162_500_000, 162_500_000, '', WEATHER],
  [17, 'Hestin Weather', 162_525_000, 162_525_000, '', WEATHER],
  [20, 'Harbour watch', 156_800_000, null, ''],
  [21, 'Ferry working', 156_650_000, null, ''],
  [24, 'Beach handhelds', 446_006_250, 446_006_250, '', { mode: 'NFM', power: 500 }],
];

/** The demo's plan. The same on every machine, ids included. */
export function ketterbyWeekend(): Plan {
  const details = {
    name: 'Ketterby weekend',
    modelId: 'tern-p2',
    owner: { callSign: 'Q7KWD', region: 'orrin' as const, grade: 'full' as const, strict: false },
  };
  const channels = ROWS.map(([slot, name, rx, tx, text, more], index): Channel => {
    const access = parseAccess(text);
    if (!access.ok) throw new Error(access.reason);
    const id = `ch_ketterby${String(index + 1).padStart(2, '0')}` as ChannelId;
    return { ...channelDefaults(rx), id, list: 0, slot, name, tx, access: access.value, ...more };
  });
  return { ...newPlan('pl_ketterbyweekend' as PlanId, details), channels };
}
