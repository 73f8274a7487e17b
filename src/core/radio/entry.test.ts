import { expectPage } from '../made-pages.test.kit';
import {
  formatAccess,
  formatFrequency,
  formatPower,
  MODES,
  parseAccess,
  parseFrequency,
  parseMode,
  parsePoint,
  parsePower,
  parseTransmit,
} from '.';
import { fail, ok, type Result } from '../result';
import {
  ACCESSES,
  FREQUENCIES,
  IN_BANDS,
  MODES_TYPED,
  PLACES,
  POWERS_TYPED,
  TRANSMITS,
  type Case,
} from './entry.cases.test.kit';

const BANDS = [
  { from: 136_000_000, to: 174_000_000 },
  { from: 400_000_000, to: 480_000_000 },
];
const RX = 145_612_500;

const transmit = (text: string): Result<string | number> => {
  const read = parseTransmit(text, { rx: RX, region: 'orrin', bands: BANDS });
  if (!read.ok) return read;
  const { tx } = read.value;
  return ok(tx === null ? 'listen only' : tx === RX ? 'sends where it receives' : tx, read.note);
};
const over = <T, U>(result: Result<T>, change: (value: T) => U): Result<U> =>
  result.ok ? ok(change(result.value), result.note) : result;
const mode = (text: string) => {
  const read = parseMode(text);
  return read ? ok<string>(read) : fail(`“${text}” is not a mode. Known are ${MODES.join(', ')}.`);
};

interface Kind {
  title: string;
  cases: Case[];
  read: (text: string) => Result<string | number>;
  show: (value: string | number) => string;
}
const mhz = (value: string | number) => (typeof value === 'number' ? `${formatFrequency(value)} MHz` : value);
const words = (value: string | number) => (value === '' ? 'open' : String(value));

const KINDS: Kind[] = [
  { title: 'A frequency', cases: FREQUENCIES, read: (text) => parseFrequency(text), show: mhz },
  {
    title: 'A frequency, on a radio that tunes 136 to 174 and 400 to 480 MHz',
    cases: IN_BANDS,
    read: (text) => parseFrequency(text, BANDS),
    show: mhz,
  },
  { title: 'The transmit side, where 145.6125 MHz is received', cases: TRANSMITS, read: transmit, show: mhz },
  { title: 'Access', cases: ACCESSES, read: (text) => over(parseAccess(text), formatAccess), show: words },
  { title: 'A mode', cases: MODES_TYPED, read: mode, show: words },
  {
    title: 'A power',
    cases: POWERS_TYPED,
    read: parsePower,
    show: (value) => formatPower(Number(value)),
  },
  {
    title: 'A place, in degrees north and east',
    cases: PLACES,
    read: (text) => over(parsePoint(text), ({ lat, lon }) => `${+lat.toFixed(9)} ${+lon.toFixed(9)}`),
    show: words,
  },
];

describe.each(KINDS)('$title', ({ cases, read }) => {
  test.each(cases)('%s', (typed, becomes) => {
    const got = read(typed);
    if (becomes === null || typeof becomes !== 'object')
      expect(got).toMatchObject({ ok: true, value: becomes });
    else if ('ask' in becomes) {
      if (got.ok) throw new Error(`“${typed}” was taken for ${got.value}`);
      for (const reading of becomes.ask) expect(got.reason).toContain(reading);
    } else expect(got).toMatchObject({ ok: false, reason: expect.stringMatching(becomes.no) });
  });
});

test('what is asked for can be typed: each of the readings that are offered is understood', () => {
  let asked = 0;
  for (const { title, cases, read } of KINDS)
    for (const [, becomes] of cases)
      if (becomes !== null && typeof becomes === 'object' && 'ask' in becomes)
        for (const reading of becomes.ask) {
          if (reading.includes('missing')) continue;
          asked++;
          // A shift that is offered in MHz is typed with its sign.
          const typed = title.startsWith('The transmit side') ? `+${reading}` : reading;
          expect([reading, read(typed).ok || read(reading).ok]).toEqual([reading, true]);
        }
  expect(asked).toBeGreaterThan(20);
});

const cell = (text: string) =>
  text === ''
    ? '*nothing*'
    : `\`${text.replace(/[\p{Cf}]/gu, (c) => `U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`)}\``;

function table({ title, cases, read, show }: Kind): string {
  const rows = cases.map(([typed]) => {
    const got = read(typed);
    const becomes = got.ok ? show(got.value) + (got.note ? `. *${got.note}*` : '') : `refused: ${got.reason}`;
    return `| ${cell(typed)} | ${becomes.replaceAll('|', '\\|')} |`;
  });
  return [`## ${title}`, '', '| typed | becomes |', '| --- | --- |', ...rows, ''].join('\n');
}

test('docs/entry.md says what each case becomes', () => {
  const page = [
    '# What is understood',
    '',
    'Made by `src/core/radio/entry.test.ts` from its cases; run it with `MAKE_DOCS=1` after a change. What could mean two things is refused',
    'with both readings; nothing is guessed. Figures of all scripts, full-width characters, every dash, middle dots and quotes are read as their plain ones.',
    '',
    ...KINDS.map(table),
  ].join('\n');
  expectPage('entry.md', page);
});
