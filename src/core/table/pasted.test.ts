import * as fc from '../property.test.kit';
import { anyPlan, id } from '../samples.test.kit';
import { cellText, type ChannelId } from '../plan';
import { newRows, readLine, readPasted } from '.';

const cells = (text: string) => text.split('\n').map((line) => line.split('\t'));
const read = (text: string) => readPasted(text, cells(text));

describe('under headings, in any order and wording', () => {
  test('each goes where it belongs', () =>
    expect(
      read(
        'Comment\tFreq (MHz)\tStation\tCTCSS\tOffset\tDirection\nnorth\t145,6125\tHill\t88,5\t0.6\t-\n\n\t433.5\t\t\t\t',
      ),
    ).toEqual({
      kind: 'rows',
      unknown: [],
      rows: [
        { line: 2, cells: { note: 'north', rx: '145,6125 MHz', name: 'Hill', access: '88,5', tx: '-0.6' } },
        { line: 3, cells: { note: '', rx: '433.5 MHz', name: '', access: '' } },
      ],
    }));
  test('figures without a unit are in the one that the heading names', () =>
    expect(read('Name\tReceive kHz\tShift (kHz)\nA\t145612.5\t-600\nB\t145.5 MHz\t0')).toMatchObject({
      rows: [{ cells: { rx: '145612.5 kHz', tx: '-600 kHz' } }, { cells: { rx: '145.5 MHz', tx: '=' } }],
    }));
  test('tones in two columns, headings that nobody knows, a call sign for a name', () =>
    expect(
      read(
        'RX Frequency\tTX Frequency\tTX Tone\tRX Tone\tCall\tColour\n145.5\t\t88.5\t\tQ7AB\tred\n145.6\t145.0\t\t77.0\t\t',
      ),
    ).toEqual({
      kind: 'rows',
      unknown: ['Colour'],
      rows: [
        { line: 2, cells: { rx: '145.5', tx: '', access: '88.5', call: 'Q7AB', name: 'Q7AB' } },
        { line: 3, cells: { rx: '145.6', tx: '145.0', access: '/77.0', call: '' } },
      ],
    }));
  test.each([
    ['0.6', '-', '-0.6'],
    ['0.6', 'minus', '-0.6'],
    ['7,6', '+', '+7,6'],
    ['-0.6', '', '-0.6'],
    ['0.6', '', '+0.6'],
    ['0', '', '='],
    ['0.000', '+', '='],
    ['', '-', '-'],
    ['600k', 'down', '-600k'],
    ['', 'simplex', '='],
    ['0.6', 'none', '='],
  ])('a shift of “%s” and a direction “%s” is “%s”', (shift, way, tx) => {
    const pasted = read(`rx\tshift\tdirection\n145.6\t${shift}\t${way}`);
    expect(pasted.kind === 'rows' && pasted.rows[0]!.cells.tx).toBe(tx);
  });
  test('a first row with numbers in it is no heading, nor one without receive', () => {
    expect(read('145.5\tName\n145.6\tHill').kind).toBe('block');
    expect(read('Name\tMode\nHill\tFM').kind).toBe('block');
    expect(read('Receive\tName').kind).toBe('block');
  });
});

describe('a list in running text', () => {
  test.each([
    [
      'Ullsmere Hill 145.6125 -0.6 88.5',
      { name: 'Ullsmere Hill', rx: '145.6125', tx: '-0.6', access: '88.5' },
    ],
    [
      '- Hill: 145,6125 MHz, -600k, tone 88,5 Hz',
      { name: 'Hill', rx: '145,6125 MHz', tx: '-600k', access: '88,5' },
    ],
    ['3. 162.400 Weather listen only', { name: 'Weather', rx: '162.400', tx: 'x' }],
    [
      'Perrin Cross 438.65 431.05 DMR CC3 TS2',
      { name: 'Perrin Cross', rx: '438.65', tx: '431.05', mode: 'DMR', access: 'CC3 TS2' },
    ],
    ['Harbour 156.8 FM 25W', { name: 'Harbour', rx: '156.8', mode: 'FM', power: '25W' }],
    ['Gate D023N/D047I 446.00625', { name: 'Gate D023N/D047I', rx: '446.00625' }],
    ['Rescue 155.1 NAC 293 P25', { name: 'Rescue', rx: '155.1', mode: 'P25', access: 'NAC 293' }],
    ['88.5 tone on 145.6 Hill', { name: '88.5 Hill', rx: '145.6' }],
    ['Net 145.45 on Sunday 10 W', { name: 'Net Sunday', rx: '145.45', power: '10 W' }],
    ['145600k Top', { name: 'Top', rx: '145600k' }],
    ['nothing here', undefined],
    ['', undefined],
  ])('%s', (line, wanted) => expect(readLine(line)).toEqual(wanted));
  test('lines without a frequency come along, so that they are named', () => {
    const text = 'Hill 145.6125\n\nsee you there\nTop 145.7 -';
    expect(readPasted(text, [['Hill 145.6125'], [''], ['see you there'], ['Top 145.7 -']])).toEqual({
      kind: 'rows',
      unknown: [],
      rows: [
        { line: 1, cells: { name: 'Hill', rx: '145.6125' } },
        { line: 3, cells: { name: 'see you there' } },
        { line: 4, cells: { name: 'Top', rx: '145.7', tx: '-' } },
      ],
    });
  });
  test('bare numbers are a block of cells', () => {
    expect(read('145.5\n145.6').kind).toBe('block');
    expect(read('Hill\nTop').kind).toBe('block');
  });
});

describe('channels of rows', () => {
  const context = { region: 'orrin' as const, bands: [{ from: 136_000_000, to: 174_000_000 }] };
  let n = 0;
  const makeId = () => id(++n);
  beforeEach(() => (n = 0));
  test('what is not understood keeps nothing else out', () => {
    const made = newRows(
      [
        {
          line: 2,
          cells: {
            rx: '145,6125',
            tx: '-',
            name: ' Hill ',
            access: '88.5',
            mode: 'fm',
            power: '5 W',
            scan: 'no',
            note: 'north',
            tags: 'sea, sea;  top',
          },
        },
        { line: 3, cells: { rx: '145.7', access: 'loud', mode: 'shout', name: '' } },
        { line: 4, cells: { rx: '433.5', name: 'Out' } },
        { line: 5, cells: { name: 'see you there' } },
      ],
      context,
      makeId,
    );
    expect(made.channels).toMatchObject([
      {
        id: id(1),
        name: 'Hill',
        rx: 145_612_500,
        tx: 145_012_500,
        access: { send: { tone: 885 } },
        mode: 'FM',
        power: 5000,
        scan: false,
        note: 'north',
        tags: ['sea', 'top'],
      },
      { id: id(2), name: '', rx: 145_700_000, tx: 145_700_000, mode: 'FM' },
    ]);
    expect(made.odd).toEqual([
      { id: id(2), column: 'access', text: 'loud', reason: expect.stringContaining('not a tone') },
      { id: id(2), column: 'mode', text: 'shout', reason: expect.stringContaining('not a mode') },
    ]);
    expect(made.refused).toEqual([
      { line: 4, text: '433.5 Out', reason: expect.stringContaining('no band') },
      { line: 5, text: 'see you there', reason: expect.any(String) },
    ]);
  });
  test('what is copied out under headings and pasted back is equal', () => {
    const COLUMNS = ['name', 'rx', 'tx', 'access', 'mode', 'power', 'scan'] as const;
    let channels = 0;
    fc.assert(
      fc.property(anyPlan, (plan) => {
        // A name with a tab or a line break in it is no cell any more; pasting brings white space to one form.
        const own = plan.channels.filter(({ name }) => !/[\t\r\n]|\s\s/.test(name));
        const text = [
          'Name\tReceive\tTransmit\tAccess\tMode\tPower\tScan',
          ...own.map((one) => COLUMNS.map((column) => cellText(one, column)).join('\t')),
        ].join('\n');
        const pasted = readPasted(text, cells(text));
        if (own.length === 0) return;
        if (pasted.kind !== 'rows') throw new Error('not known by its headings');
        const made = newRows(pasted.rows, { region: 'orrin' }, () => 'ch_x' as ChannelId);
        expect(made.refused).toEqual([]);
        expect(made.odd).toEqual([]);
        channels += own.length;
        made.channels.forEach((one, at) => {
          const { name, rx, tx, access, mode, power, scan } = own[at]!;
          expect(one).toMatchObject({ name: name.replace(/\s+/g, ' '), rx, tx, access, mode, power, scan });
        });
      }),
      { numRuns: 200 },
    );
    fc.expectReached('channels', channels, 501);
  });
});
