import {
  channelDefaults,
  newPlan,
  type Channel,
  type ChannelFields,
  type ChannelId,
  type Plan,
  type PlanDetails,
  type PlanId,
  type ScanEdgeId,
  type SetUpId,
  type SetUpSide,
  type SkipSetId,
  type ZoneId,
} from '../src/core/plan';
import { newSide } from '../src/core/organise';
import { islesNetwork, rescueTeam } from './digital';
import { parseAccess } from '../src/core/radio';

/** Plans for the other radios of the shelf, each as somebody would be glad to begin with. The same on every machine. */

type Row = [
  list: number,
  slot: number,
  name: string,
  rx: number,
  tx: number | null,
  access?: string,
  more?: Partial<ChannelFields>,
];

const station = (lat: number, lon: number): Partial<ChannelFields> => ({
  source: { directory: 'relay-register', entry: 'demo', service: 'amateur', lat, lon },
});

function planOf(key: string, details: Pick<PlanDetails, 'name' | 'modelId'>, rows: readonly Row[]): Plan {
  const owner = { callSign: 'Q7KWD', region: 'orrin' as const, grade: 'full' as const, strict: false };
  const channels = rows.map(([list, slot, name, rx, tx, text = '', more], index): Channel => {
    const access = parseAccess(text);
    if (!access.ok) throw new Error(access.reason);
    const id = `ch_${key}${String(index + 1).padStart(3, '0')}` as ChannelId;
    return { ...channelDefaults(rx), id, list, slot, name, tx, access: access.value, ...more };
  });
  channels.sort((a, b) => a.list - b.list || a.slot - b.slot);
  return { ...newPlan(`pl_${key}` as PlanId, { ...details, owner }), channels };
}

const WEATHER: Partial<ChannelFields> = { alwaysOn: true, scan: false };
/** Where the stations of the trip stand. */
const ULLSMERE = station(52.05, -30.4);
const BRANNOCH = station(52.3, -29.8);
const FARROW = station(51.7, -29.2);

const TRIP: readonly Row[] = [
  [0, 1, 'Calling 2 m', 145_500_000, 145_500_000],
  [0, 2, 'Ullsmere Hill', 145_612_500, 145_012_500, '88.5', ULLSMERE],
  [0, 3, 'Tamsin Tower', 145_687_500, 145_087_500, '103.5', ULLSMERE],
  [0, 4, 'Garrowick Ridge', 145_650_000, 145_050_000, '110.9', ULLSMERE],
  [0, 5, 'Brannoch Head', 145_737_500, 145_137_500, '94.8/94.8', BRANNOCH],
  [0, 6, 'Norrast Relay', 145_775_000, 145_175_000, '67.0', BRANNOCH],
  [0, 7, 'Stennick Down', 145_700_000, 145_100_000, '', BRANNOCH],
  [0, 8, 'Farrow Light', 145_625_000, 145_025_000, '77.0', FARROW],
  [0, 9, 'Perrin Cross', 145_662_500, 145_062_500, '', FARROW],
  [0, 20, 'Isle Weather North', 162_400_000, null, '', WEATHER],
  [0, 21, 'Isle Weather South', 162_425_000, null, '', WEATHER],
  [0, 30, 'Harbour watch', 156_800_000, null],
  [1, 1, 'Calling 70 cm', 433_500_000, 433_500_000],
  [1, 2, 'Ketterby Quay', 430_887_500, 438_487_500, 'D023N', { mode: 'NFM', ...ULLSMERE }],
  [1, 3, 'Ashgill Moor', 439_050_000, 431_450_000, '118.8', { mode: 'NFM', ...BRANNOCH }],
  [1, 4, 'Farrow Point', 433_162_500, 434_762_500, '77.0', FARROW],
  [1, 5, 'Quill Link', 438_900_000, 431_300_000, '', FARROW],
  [1, 10, 'Car to car', 433_525_000, 433_525_000, '', { power: 5_000 }],
  [2, 1, 'Home 2 m', 145_375_000, 145_375_000],
  [3, 2, 'Home 70 cm', 433_525_000, 433_525_000, '', { power: 5_000 }],
];

const zoneId = (n: number) => `zn_threedays${n}` as ZoneId;
const side = (set: Partial<SetUpSide>): SetUpSide => ({ ...newSide(), ...set });

/** A Gannet M8 for three days across the isles: 2 m left, 70 cm right, a bank a day, two quick set-ups. */
export function threeDays(): Plan {
  const plan = planOf('threedays', { name: 'Three days across the isles', modelId: 'gannet-m8' }, TRIP);
  const named = (...names: string[]) =>
    plan.channels.flatMap(({ id, name, list }) => (names.includes(name) && list < 2 ? [id] : []));
  const [start] = named('Ullsmere Hill');
  const noWeather = 'sk_threedays1' as SkipSetId;
  return {
    ...plan,
    zones: [
      ['Day 1', 'Ullsmere Hill', 'Tamsin Tower', 'Garrowick Ridge', 'Ketterby Quay'],
      ['Day 2', 'Brannoch Head', 'Norrast Relay', 'Stennick Down', 'Ashgill Moor'],
      ['Day 3', 'Farrow Light', 'Perrin Cross', 'Farrow Point', 'Quill Link'],
    ].map(([name, ...names], n) => ({
      id: zoneId(n + 1),
      name: name!,
      members: named('Calling 2 m', 'Calling 70 cm', ...names),
    })),
    skipSets: [
      {
        id: noWeather,
        name: 'No weather',
        way: 'all but',
        members: named('Isle Weather North', 'Isle Weather South', 'Harbour watch'),
      },
      {
        id: 'sk_threedays2' as SkipSetId,
        name: 'Calling',
        way: 'only',
        members: named('Calling 2 m', 'Calling 70 cm'),
      },
    ],
    scanEdges: [
      {
        id: 'se_threedays1' as ScanEdgeId,
        name: 'Simplex 2 m',
        list: 0,
        from: 145_200_000,
        to: 145_575_000,
      },
      {
        id: 'se_threedays2' as ScanEdgeId,
        name: 'Search 70 cm',
        list: 1,
        from: 433_000_000,
        to: 434_000_000,
      },
    ],
    setUps: [
      {
        id: 'qs_threedays1' as SetUpId,
        name: 'Day 1',
        sides: [
          side({ zone: zoneId(1), start: start!, scanning: true, skipSet: noWeather }),
          side({ begins: 'home', shows: 'frequency' }),
        ],
      },
      {
        id: 'qs_threedays2' as SetUpId,
        name: 'Anchor',
        sides: [side({ zone: zoneId(2), start: start! }), side({ begins: 'dial' })],
      },
    ],
  };
}

/** A Petrel HF9 at home; one of its shifts is not the one that it stores for the band. */
export const baseStation = (): Plan =>
  planOf('basestation', { name: 'Base at the window', modelId: 'petrel-hf9' }, [
    [0, 1, 'Isles net', 3_660_000, 3_660_000, '', { mode: 'LSB', power: 100_000 }],
    [0, 2, 'Evening on 40', 7_120_000, 7_120_000, '', { mode: 'LSB', power: 100_000 }],
    [0, 3, 'Beacon 20 m', 14_100_000, null, '', { mode: 'CW', alwaysOn: true, scan: false }],
    [0, 4, 'Far away', 14_250_000, 14_250_000, '', { mode: 'USB', power: 100_000 }],
    [0, 10, 'Calling 6 m', 50_150_000, 50_150_000, '', { mode: 'USB', power: 50_000 }],
    [0, 20, 'Calling 2 m', 145_500_000, 145_500_000, '', { power: 50_000 }],
    [0, 21, 'Ullsmere Hill', 145_612_500, 145_012_500, '88.5', { power: 50_000 }],
    [0, 22, 'Brannoch Head', 145_737_500, 145_137_500, '94.8/94.8', { power: 50_000 }],
    [0, 30, 'Ketterby Quay', 430_887_500, 438_487_500, '', { power: 20_000 }],
    [0, 31, 'Farrow Point', 433_162_500, 434_762_500, '77.0', { power: 20_000 }],
  ]);

/** A Plover F5 of the harbour office: two banks, the airband, and a digital channel that waits for its call sign. */
export function harbourOffice(): Plan {
  const plan = planOf('harbouroffice', { name: 'Harbour office', modelId: 'plover-f5' }, [
    [0, 1, 'Harbour watch', 156_800_000, null],
    [0, 2, 'Ferry working', 156_650_000, null],
    [0, 3, 'Calling 2 m', 145_500_000, 145_500_000],
    [0, 4, 'Ullsmere Hill', 145_612_500, 145_012_500, '88.5'],
    [0, 5, 'Club digital', 145_375_000, 145_375_000, '', { mode: 'C4FM', power: 2_500 }],
    [0, 6, 'Ketterby Quay', 430_887_500, 438_487_500, 'D023N', { mode: 'NFM' }],
    [0, 20, 'Ketterby Tower', 118_850_000, null, '', { mode: 'AM' }],
    [0, 21, 'Isles Approach', 124_000_000, null, '', { mode: 'AM' }],
  ]);
  const ids = (...slots: number[]) =>
    plan.channels.flatMap(({ id, slot }) => (slots.includes(slot) ? [id] : []));
  return {
    ...plan,
    zones: [
      { id: 'zn_harbour01' as ZoneId, name: 'Harbour', members: ids(1, 2, 3, 4, 5, 6) },
      { id: 'zn_harbour02' as ZoneId, name: 'Air', members: ids(20, 21) },
    ],
  };
}

/** A Curlew X1 for the hills. */
export function rucksack(): Plan {
  const plan = planOf('rucksack', { name: 'Rucksack', modelId: 'curlew-x1' }, [
    [0, 1, 'Isles net', 3_660_000, 3_660_000, '', { mode: 'LSB', power: 10_000 }],
    [0, 2, 'Far away', 14_250_000, 14_250_000, '', { mode: 'USB', power: 10_000 }],
    [0, 3, 'Hill to hill', 144_300_000, 144_300_000, '', { mode: 'USB', power: 5_000 }],
    [0, 4, 'Positions', 144_800_000, 144_800_000, '', { scan: false, power: 5_000 }],
    [0, 5, 'Calling 2 m', 145_500_000, 145_500_000, '', { power: 5_000 }],
    [0, 6, 'Ullsmere Hill', 145_612_500, 145_012_500, '88.5', { power: 5_000 }],
    [0, 7, 'Ashgill Moor', 439_050_000, 431_450_000, '118.8', { mode: 'NFM', power: 5_000 }],
  ]);
  return { ...plan, settings: { 'curlew-x1': { gnss: true, aprs: 'sends', aprsCall: 'Q7KWD-7' } } };
}

/** All of them, in the order in which they are made. */
export const shelf = (): Plan[] => [
  rescueTeam(),
  islesNetwork(),
  rucksack(),
  harbourOffice(),
  baseStation(),
  threeDays(),
];
