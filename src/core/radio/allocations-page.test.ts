import { expectPage } from '../made-pages.test.kit';
import {
  ADDITIONS,
  ALLOCATIONS,
  ALLOCATION_SOURCES,
  BAND_PLANS,
  citation,
  codeFigures,
  CODES,
  CODES_SOURCE,
  DISTRESS,
  DISTRESS_SOURCE,
  formatFrequency,
  formatPower,
  formatShift,
  formatTone,
  GRADES,
  GRADE_NAMES,
  MARINE_CHANNELS,
  MARINE_SOURCE,
  MODES,
  MODE_TRAITS,
  REGIONS,
  REGION_NAMES,
  SHIFT_SOURCES,
  TONES,
  TONES_SOURCE,
  USUAL_SHIFTS,
  WIDTHS_SOURCE,
  type Addition,
  type Allocation,
} from '.';

const mhz = (hz: number) => formatFrequency(hz);
const span = ({ from, to }: { from: number; to: number }) =>
  from === to ? mhz(from) : `${mhz(from)} to ${mhz(to)}`;
const table = (head: string[], rows: string[][]) =>
  [head, head.map(() => '---'), ...rows].map((row) => `| ${row.join(' | ')} |`).join('\n');

const HEAD = ['MHz', 'band', 'service', ...GRADES.map((grade) => GRADE_NAMES[grade]), 'modes', 'note'];
const rowOf = (a: Allocation) => [
  span(a),
  a.band,
  a.service,
  ...GRADES.map((grade) => (a.power[grade] === undefined ? '–' : formatPower(a.power[grade]))),
  a.modes?.join(', ') ?? 'any',
  a.note ?? '',
];

test('docs/allocations.md has every table with its source', () => {
  const parts = REGIONS.flatMap((region) => [
    `## ${REGION_NAMES[region]}`,
    `### Allocations: ${citation(ALLOCATION_SOURCES[region])}`,
    table(HEAD, ALLOCATIONS[region].map(rowOf)),
    ...(ADDITIONS as readonly Addition[])
      .filter(({ regions }) => regions.includes(region))
      .flatMap(({ id, name, source, allocations }) => [
        `#### ${name} (\`${id}\`): ${citation(source)}`,
        table(HEAD, allocations.map(rowOf)),
      ]),
    `### Usual shifts: ${citation(SHIFT_SOURCES[region])}`,
    table(
      ['output, MHz', 'band', 'shift, MHz'],
      USUAL_SHIFTS[region].map((usual) => [span(usual), usual.band, formatShift(usual.shift)]),
    ),
    `### Parts of the bands: ${citation(BAND_PLANS[region].source)}`,
    table(
      ['MHz', 'kept for'],
      BAND_PLANS[region].parts.map((part) => [
        span(part),
        part.use === 'narrow' ? 'narrow modes' : 'satellites',
      ]),
    ),
  ]);
  expectPage(
    'allocations.md',
    [
      '# Who may transmit where',
      'Made by `src/core/radio/allocations-page.test.ts` from the data in `src/core/radio`; run it with `MAKE_DOCS=1` after a change. Edges in MHz; the power of each licence grade, a dash where it may not send. A plan names its region and, of what some countries have beyond the region’s common table, what holds where it is used.',
      ...parts,
      `## Marine channels: ${citation(MARINE_SOURCE)}`,
      table(
        ['channel', 'ship, MHz', 'coast, MHz'],
        MARINE_CHANNELS.map(({ number, ship, coast }) => [String(number), mhz(ship), mhz(coast)]),
      ),
      `## Distress, calling and emergency: ${citation(DISTRESS_SOURCE)}`,
      table(
        ['MHz', 'for'],
        DISTRESS.map((channel) => [span(channel), channel.purpose]),
      ),
      `## Widths that the guard takes: ${citation(WIDTHS_SOURCE)}`,
      table(
        ['mode', 'kHz'],
        MODES.map((mode) => [mode, String(MODE_TRAITS[mode].width / 1000)]),
      ),
      `## Tones, Hz: ${citation(TONES_SOURCE)}`,
      TONES.map(formatTone).join(' '),
      `## Codes, octal: ${citation(CODES_SOURCE)}`,
      CODES.map(codeFigures).join(' '),
    ].join('\n\n') + '\n',
  );
});
