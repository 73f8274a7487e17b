import { curlewX1 } from './curlew-x1';
import { gannetM8 } from './gannet-m8';
import { kestrelC1 } from './kestrel-c1';
import { petrelHF9 } from './petrel-hf9';
import { ternP2 } from './tern-p2';
import { face, largeLineOf, onAir, placeText, type FittedChannel } from '.';

/** What displays read, mark by mark. */

const one = (set: Partial<FittedChannel> = {}): FittedChannel => ({
  list: 0,
  slot: 7,
  name: 'NAME',
  rx: 145_612_500,
  tx: 145_612_500,
  send: null,
  expect: null,
  mode: 'FM',
  power: 4_000,
  scan: true,
  ...set,
});
const code = { kind: 'code' as const, code: 23, inverted: false };
const tone = { kind: 'tone' as const, tone: 885 };
const read = (set: Partial<FittedChannel>, model = ternP2) => face(one(set), model, false, 'orrin');

test('the mark of the shift: none, up, down, a split', () => {
  expect(read({}).shift).toBe('');
  expect(read({ tx: null }).shift).toBe('');
  expect(read({ tx: 145_012_500 }).shift).toBe('−0.600');
  expect(read({ rx: 430_887_500, tx: 438_487_500 }).shift).toBe('+7.600');
  expect(read({ tx: 145_000_000 }).shift).toBe('+−');
  // where one shift is stored the radio knows that one, whatever is usual
  expect(read({ tx: 145_012_500, split: true }, petrelHF9).shift).toBe('SPLIT');
  expect(read({ rx: 145_000_000, tx: 145_600_000 }, petrelHF9).shift).toBe('up 0.600');
});

test('marks of tone, code, width, power and scan', () => {
  expect(read({}).marks).toEqual([]);
  expect(read({ send: tone }).marks).toEqual(['T']);
  expect(read({ send: tone, expect: tone }).marks).toEqual(['T SQ']);
  expect(read({ send: code }).marks).toEqual(['DCS']);
  expect(read({ expect: code }).marks).toEqual(['DCS']);
  expect(read({ mode: 'NFM', power: 1_000, scan: false }).marks).toEqual(['N', 'L', 'SKIP']);
  // of a channel that sends nothing the power is of no interest, nor of a memory that knows none
  expect(read({ power: 1_000, tx: null }).marks).toEqual([]);
  expect(read({ power: 500 }, curlewX1).marks).toEqual([]);
});

test('a side and a bank where the radio has them, a mode where it has others than FM', () => {
  expect(read({}, ternP2)).toMatchObject({ side: '', mode: '' });
  expect(read({ list: 1 }, gannetM8)).toMatchObject({ side: 'Right', mode: '', slot: '007' });
  expect(read({ mode: 'USB' }, petrelHF9)).toMatchObject({ side: '', mode: 'USB', slot: 'mem 007' });
  expect(face(one(), gannetM8, false, 'orrin', 'name', 'Day 1').marks).toEqual(['Day 1']);
});

test('the large line is what the setting of that side says', () => {
  const settings = { showLeft: 'slot', showRight: 'frequency' };
  expect([0, 1].map((list) => largeLineOf(gannetM8, list, settings))).toEqual(['slot', 'frequency']);
  expect(largeLineOf(gannetM8, 0, {})).toBe('name');
  expect(largeLineOf(petrelHF9, 0, {})).toBe('frequency');
  expect(largeLineOf(petrelHF9, 0, { shows: 'anything' })).toBe('frequency');
  expect(face(one(), petrelHF9, false, 'orrin')).toMatchObject({ large: '145.61250', small: 'NAME' });
  expect(face(one(), petrelHF9, false, 'orrin', 'name')).toMatchObject({ large: 'NAME', small: '145.61250' });
  expect(face(one({ name: '' }), ternP2, false, 'orrin')).toMatchObject({
    large: '145.6125',
    small: '145.6125',
  });
});

test('the key: what is sent, or that nothing is', () => {
  expect(face(one({ tx: 145_012_500 }), ternP2, true, 'orrin')).toMatchObject({
    large: '145.0125',
    small: 'NAME',
    sending: true,
    refused: false,
  });
  expect(face(one({ tx: null }), ternP2, true, 'orrin')).toMatchObject({
    marks: ['NO TX'],
    large: 'NAME',
    sending: false,
    refused: true,
  });
  expect(onAir(one({ send: tone }))).toBe('Sends on 145.6125 with 88.5 Hz, 4 W.');
  expect(onAir(one({ tx: 145_500_000 }), ternP2)).toBe('Sends on 145.500, 4 W.');
  expect(onAir(one(), curlewX1)).toBe('Sends on 145.6125, with the power it stands at.');
  expect(onAir(one({ tx: null }))).toBe('Listen only: the key sends nothing.');
});

test('a digital channel: whom it calls; without a talkgroup the key sends nothing', () => {
  const dmr = (talkgroup: number | null) =>
    one({
      ...{ rx: 439_412_500, tx: 431_812_500, mode: 'DMR' },
      digital: {
        ...{ colourCode: 3, timeSlot: 2, talkgroup, receiveList: null },
        ...{ politeness: 'impolite', level: null },
      },
    });
  const down = (channel: FittedChannel, name: string) =>
    face(channel, kestrelC1, true, 'orrin', 'name', '', name);
  expect(down(dmr(1), 'Isles')).toMatchObject({
    ...{ called: 'Isles  CC3 TS2', sending: true, refused: false },
    marks: [kestrelC1.face.marks.sending],
  });
  expect(down(dmr(null), '')).toMatchObject({
    ...{ called: 'CC3 TS2', large: 'NAME', sending: false, refused: true },
    marks: [kestrelC1.face.marks.noTransmit],
  });
  expect(onAir(dmr(1), kestrelC1, 'Isles')).toBe('Sends to Isles on 431.8125, CC3 TS2, 4 W.');
  expect(onAir(dmr(null), kestrelC1)).toBe('Calls nobody: the key sends nothing.');
  // A talkgroup whose name is not known is called all the same.
  expect(onAir(dmr(1), kestrelC1)).toBe('Sends on 431.8125, CC3 TS2, 4 W.');
});

test('a place is its slot, after the side where a radio has two', () => {
  expect(placeText(ternP2, { list: 0, slot: 7 })).toBe('007');
  expect(placeText(gannetM8, { list: 1, slot: 7 })).toBe('Right 007');
  expect(placeText(gannetM8, { list: 2, slot: 1 })).toBe('Left home 001');
});
