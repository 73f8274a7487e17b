import { channel, id, plan } from '../samples.test.kit';
import { face, findModels, modelByIdent, onAir } from '../models';
import { ternP2 } from '../models/tern-p2';
import { ternP3 } from '../models/tern-p3';
import { fit, holdsSquelch, nearestPower } from '.';

const p = plan([
  channel(7, 430_887_500, {
    name: 'Ketterby Quay',
    tx: 438_487_500,
    power: 2000,
    mode: 'NFM',
    access: { kind: 'analogue', send: { kind: 'code', code: 23, inverted: false }, expect: null },
  }),
  channel(8, 156_800_000, { name: 'Harbour' }),
  channel(9, 439_450_000, { name: 'Linked', mode: 'DMR' }),
  channel(10, 145_500_000, { name: 'My own', fitted: { 'tern-p2': 'MINE' } }),
]);

test('the fit lists what it shortens, changes and leaves out', () => {
  const fitted = fit(p, ternP2);
  expect(fitted.channels.map((c) => [c.slot, c.name, c.tx, c.power])).toEqual([
    [7, 'KTT QY', 438_487_500, 1000],
    [8, 'HBR', null, 4000],
    [10, 'MINE', 145_500_000, 4000],
  ]);
  expect(fitted.leftOut).toEqual([{ id: id(9), obstacles: ['mode'] }]);
  expect(fitted.changes.map((c) => [c.id, c.what, c.text])).toEqual([
    [id(7), 'name', 'Name cut to KTT QY'],
    [id(7), 'power', '2 W becomes 1 W'],
    [id(8), 'name', 'Name abbreviated to HBR'],
    [id(8), 'tx', 'Held as listen only'],
  ]);
});

test('a name of which the display has no letter gives way to the frequency, and the fit says so', () => {
  const fitted = fit(plan([channel(1, 145_612_500, { name: '丘' })]), ternP2);
  expect(fitted.channels[0]!.name).toBe('');
  expect(fitted.changes).toEqual([
    {
      id: id(1),
      what: 'name',
      text: 'Shown by its frequency, 145.6125',
      because: 'This display has none of the letters of the name',
    },
  ]);
});

test('a tone or code is held where the model has it, a turned one only where it turns codes', () => {
  const code = (figures: number, inverted: boolean) => ({ kind: 'code' as const, code: figures, inverted });
  const plain = { ...ternP2, codes: [23, 25], tones: [885], invertedCodes: false };
  const turning = { ...plain, invertedCodes: true };
  expect(holdsSquelch({ kind: 'tone', tone: 885 }, plain)).toBe(true);
  expect(holdsSquelch({ kind: 'tone', tone: 948 }, plain)).toBe(false);
  expect(holdsSquelch(code(23, false), plain)).toBe(true);
  expect(holdsSquelch(code(23, true), plain)).toBe(false);
  expect(holdsSquelch(code(23, true), turning)).toBe(true);
  expect(holdsSquelch(code(26, false), plain)).toBe(false);
  expect(holdsSquelch(code(26, false), turning)).toBe(false);
  expect(holdsSquelch(code(26, true), turning)).toBe(false);
});

test('the nearest power; of two as near the lower', () => {
  expect([1, 1000, 2500, 2501, 50_000].map((mw) => nearestPower(mw, ternP2))).toEqual([
    1000, 1000, 1000, 4000, 4000,
  ]);
});

describe('the face', () => {
  const [ketterby, harbour] = fit(p, ternP2).channels;
  test('receiving: name, receive frequency, marks, usual shift with its size', () =>
    expect(face(ketterby!, ternP2, false, 'orrin')).toEqual({
      slot: 'M-007',
      called: '',
      side: '',
      mode: '',
      marks: ['DCS', 'N', 'L'],
      large: 'KTT QY',
      small: '430.8875',
      shift: '+7.600',
      sending: false,
      refused: false,
    }));
  test('key down: the transmit frequency is large', () =>
    expect(face(ketterby!, ternP2, true, 'orrin')).toMatchObject({
      large: '438.4875',
      small: 'KTT QY',
      marks: ['SEND', 'DCS', 'N', 'L'],
      sending: true,
    }));
  test('a shift that is not usual reads as split', () =>
    expect(face(ketterby!, ternP2, false, 'itu2').shift).toBe('+−'));
  test('listen only refuses the key', () => {
    expect(face(harbour!, ternP2, true, 'orrin')).toMatchObject({
      large: 'HBR',
      marks: ['NO TX'],
      refused: true,
      sending: false,
    });
    expect(onAir(harbour!)).toContain('Listen only');
    expect(onAir(ketterby!)).toBe('Sends on 438.4875 with D023N, 1 W.');
  });
  test('the large line follows the radio’s setting', () => {
    expect(face(ketterby!, ternP2, false, 'orrin', 'frequency').large).toBe('430.8875');
    expect(face(ketterby!, ternP2, false, 'orrin', 'slot').large).toBe('M-007');
  });
});

test('a model is found under each of its names', () => {
  for (const name of ['Tern P2', 'tern p2h', 'Sandhoven S22', 'S22'])
    expect(findModels(name)[0]?.model.id).toBe('tern-p2');
  expect(findModels('no such radio')).toEqual([]);
  expect(modelByIdent('TERN-P2 ')?.id).toBe('tern-p2');
});

test('what a plan for the P2 gains on the P3, and what it loses', () => {
  const both = plan([
    channel(0, 145_500_000, { name: 'Calling' }),
    channel(5, 224_300_000, { name: 'Ketterby', tx: 222_700_000 }),
    channel(149, 433_500_000, { name: 'Farrow Pt' }),
    channel(200, 433_525_000, { name: 'Strand' }),
  ]);
  const [two, three] = [fit(both, ternP2), fit(both, ternP3)];
  // 1.25 m and the slots from 150 on are the P3's alone; its slots begin at 1
  expect(two.leftOut).toEqual([
    { id: id(5), obstacles: ['receive range'] },
    { id: id(200), obstacles: ['slot'] },
  ]);
  expect(three.leftOut).toEqual([{ id: id(0), obstacles: ['slot'] }]);
  expect(three.channels.map(({ slot, name, tx }) => [slot, name, tx])).toEqual([
    [5, 'KETTERBY', 222_700_000],
    [149, 'FARRW PT', 433_500_000],
    [200, 'STRAND', 433_525_000],
  ]);
});

test('a channel of a list that the radio does not have is left out', () => {
  const other = { ...channel(3, 145_500_000), list: 1 };
  expect(fit(plan([other]), ternP2).leftOut).toEqual([{ id: id(3), obstacles: ['slot'] }]);
});
