import * as fc from '../property.test.kit';
import { blankImage } from '../format';
import { fit } from '../fit';
import { check } from '../check';
import { MODELS, modelOfPlan, modelOfUnit, regionWords, unitWords, type Model } from '../models';
import { formatOf } from '../models/formats';
import { gannetM8 } from '../models/gannet-m8';
import { petrelHF9 } from '../models/petrel-hf9';
import { ternP2 } from '../models/tern-p2';
import { applyEdit, radioIdSchema, type UnitFacts } from '../plan';
import { channel, plan } from '../samples.test.kit';
import { encodeImage, modelOfImage, unitOf, withUnit } from '.';

/** What a unit's own memory tells of it, byte by byte as docs/models say, and what fit and check make of that. */

const image = (model: Model, bytes: Record<number, number[]>): Uint8Array => {
  const made = blankImage(formatOf(model));
  for (const [at, some] of Object.entries(bytes)) made.set(some, Number(at));
  return made;
};

// 14400, 14600, 43000 and 44000 units of 10 kHz are 0x3840, 0x3908, 0xa7f8 and 0xabe0; with region 1 they add up to
// 1 + 0x40 + 0x38 + 0x08 + 0x39 + 0xf8 + 0xa7 + 0xe0 + 0xab = 0x3e4, and 0x1c more is 0 modulo 256.
const TERN = { 0x20: [1, 0, 0x40, 0x38, 0x08, 0x39, 0xf8, 0xa7, 0xe0, 0xab], 0x3f: [0x1c] };

test('edges are whole numbers of two bytes in units of 10 kHz, and the area adds up to nothing', () => {
  expect(unitOf(image(ternP2, TERN), ternP2)).toEqual({
    region: 1,
    sends: { '2 m': { from: 144_000_000, to: 146_000_000 }, '70 cm': { from: 430_000_000, to: 440_000_000 } },
    lacks: [],
  });
  // All bits set: it does not send there. 1 + 0x40 + 0x38 + 0x08 + 0x39 + 4 * 0xff = 0x4b6; 0x4a more.
  const closed = image(ternP2, {
    0x20: [1, 0, 0x40, 0x38, 0x08, 0x39, 0xff, 0xff, 0xff, 0xff],
    0x3f: [0x4a],
  });
  expect(unitOf(closed, ternP2)?.sends).toEqual({
    '2 m': { from: 144_000_000, to: 146_000_000 },
    '70 cm': null,
  });
});

test('nothing is believed of bytes that do not add up, of edges outside their band, and of what is no image', () => {
  expect(unitOf(image(ternP2, { ...TERN, 0x3f: [0x1d] }), ternP2)).toBeNull();
  // 144 to 200 MHz: 20000 is 0x4e20 instead of 0x3908, 0x2d more in the sum.
  const beyond = {
    0x20: [1, 0, 0x40, 0x38, 0x20, 0x4e, 0xf8, 0xa7, 0xe0, 0xab],
    0x3f: [0x1c - 0x2d + 0x100],
  };
  expect(unitOf(image(ternP2, beyond), ternP2)).toBeNull();
  expect(unitOf(new Uint8Array(), ternP2)).toBeNull();
});

test('options are bits, set where the unit has them', () => {
  // Bit 0 of 0x21 is the cross-band unit of the Gannet; both bands as the model has them.
  const edges = [0x40, 0x38, 0xd0, 0x39, 0x10, 0xa4, 0xc8, 0xaf];
  const sum = edges.reduce((all, byte) => all + byte, 3);
  const of = (option: number) =>
    unitOf(image(gannetM8, { 0x20: [3, option, ...edges], 0x3f: [-(sum + option) & 0xff] }), gannetM8);
  expect(of(1)?.lacks).toEqual([]);
  expect(of(0)?.lacks).toEqual(['cross-band unit']);
});

test('what is set in a unit is read of it again, for every model and whatever its plan', () => {
  const models = MODELS.filter((model) => formatOf(model).unit);
  expect(models.map(({ id }) => id)).toEqual([
    'tern-p2',
    'tern-p3',
    'gannet-m8',
    'petrel-hf9',
    'curlew-x1',
    'osprey-d7',
    'kestrel-c1',
  ]);
  let narrowed = 0;
  for (const model of models)
    fc.assert(
      fc.property(
        fc.uint8Array({ minLength: 32, maxLength: 32 }),
        fc.array(fc.tuple(fc.nat(1000), fc.nat(1000), fc.boolean())),
        fc.boolean(),
        (noise, cuts, bare) => {
          const { edges, open } = formatOf(model).unit!;
          const facts: UnitFacts = {
            region: noise[0]!,
            sends: {},
            lacks: bare ? (model.options ?? []).map(({ name }) => name) : [],
          };
          for (const [at, { name, receive, transmit }] of model.bands.entries()) {
            const [low = 0, high = 1000, sends = true] = cuts[at] ?? [];
            const span = Math.floor((receive.to - receive.from) / 10_000) - 1;
            const from = Math.ceil(receive.from / 10_000) + Math.floor((span * Math.min(low, high)) / 1000);
            const to = Math.max(
              from + 1,
              Math.floor(receive.from / 10_000) + Math.floor((span * Math.max(low, high)) / 1000),
            );
            const hasEdges = edges.some(({ band }) => band === name);
            if (!sends && open !== undefined) facts.sends[name] = null;
            else if (hasEdges) facts.sends[name] = { from: from * 10_000, to: to * 10_000 };
            if (facts.sends[name] && transmit && facts.sends[name].to < transmit.to) narrowed++;
          }
          const blank = blankImage(formatOf(model));
          blank.set(noise, 0x20);
          const made = withUnit(blank, model, facts);
          expect(unitOf(made, model)).toEqual(facts);
          // It belongs to the unit: a write leaves it as it is.
          const written = encodeImage({ channels: [], settings: {} }, made, model);
          expect(
            Buffer.from(written.subarray(0x20, 0x40)).equals(Buffer.from(made.subarray(0x20, 0x40))),
          ).toBe(true);
        },
      ),
      { numRuns: 60 },
    );
  fc.expectReached('narrowed', narrowed, 101);
});

const narrow: UnitFacts = { region: 1, sends: { '2 m': { from: 144_000_000, to: 146_000_000 } }, lacks: [] };
const wide = plan([channel(1, 147_000_000, { name: 'Upper' }), channel(2, 145_500_000, { name: 'Calling' })]);

test('a unit that sends on less holds the rest as listen only, and Check says which unit', () => {
  const unit = modelOfUnit(ternP2, { called: 'LK204613', facts: narrow });
  expect(fit(wide, ternP2).channels.map(({ tx }) => tx)).toEqual([147_000_000, 145_500_000]);
  expect(fit(wide, unit).channels.map(({ tx }) => tx)).toEqual([null, 145_500_000]);
  expect(check(wide, unit).map(({ text }) => text)).toContain(
    'Hears, but will not send: LK204613 does not transmit on 147.000 MHz.',
  );
  expect(modelOfUnit(ternP2, { called: 'LK204613', facts: narrow })).toBe(unit);
  expect(modelOfUnit(ternP2, { called: 'LK204613', facts: null })).toBe(ternP2);
});

test('without its option a band is not there, and a setting stays as the radio has it', () => {
  const lacks = (name: string) => ({ called: 'X', facts: { region: 3, sends: {}, lacks: [name] } });
  const petrel = { ...plan([channel(1, 433_500_000, { name: 'Calling' })]), modelId: 'petrel-hf9' };
  const bare = modelOfUnit(petrelHF9, lacks('70 cm unit'));
  expect(fit(petrel, petrelHF9).leftOut).toEqual([]);
  expect(fit(petrel, bare).leftOut).toEqual([{ id: petrel.channels[0]!.id, obstacles: ['receive range'] }]);
  expect(Object.keys(fit(petrel, petrelHF9).settings)).toContain('shift70cm');
  expect(Object.keys(fit(petrel, bare).settings)).not.toContain('shift70cm');
  const gannet = {
    ...plan([]),
    modelId: 'gannet-m8',
    settings: { 'gannet-m8': { crossBand: true, beep: true } },
  };
  const fitted = fit(gannet, modelOfUnit(gannetM8, lacks('cross-band unit')));
  expect(fitted.settings).toEqual({ beep: true });
  expect(fitted.besides).toEqual([
    {
      kind: 'setting',
      id: 'crossBand',
      text: 'A setting stays as the radio has it',
      because: 'X has no cross-band unit',
    },
  ]);
});

test('a plan that is worked on for a unit is fitted as that; for another model it is for none', () => {
  const radio = radioIdSchema.parse('rd_0000');
  const linked = applyEdit(wide, {
    name: 'describe',
    set: { unit: { radio, called: 'LK204613', facts: narrow } },
  });
  if (!linked.ok) throw new Error(linked.reason);
  expect(fit(linked.value, modelOfPlan(linked.value)!).channels[0]!.tx).toBeNull();
  const other = applyEdit(linked.value, { name: 'describe', set: { modelId: 'tern-p3' } });
  expect(other.ok && other.value.unit).toBeNull();
  expect(modelOfImage(image(ternP2, TERN), ternP2, 'LK204613').bands[0]!.transmit).toEqual({
    from: 144_000_000,
    to: 146_000_000,
  });
});

test('what a unit is otherwise than its model is said in words, and so is a set of another region', () => {
  const { facts } = { facts: unitOf(image(ternP2, TERN), ternP2)! };
  expect(unitWords(ternP2, facts)).toEqual([
    'sends on 2 m from 144 to 146 MHz',
    'sends on 70 cm from 430 to 440 MHz',
  ]);
  expect(
    unitWords(petrelHF9, { region: 3, sends: { '80 m': null, '70 cm': null }, lacks: ['70 cm unit'] }),
  ).toEqual(['sends nothing on 80 m', 'has no 70 cm unit']);
  expect(unitWords(ternP2, { ...facts, sends: { '2 m': ternP2.bands[0]!.transmit } })).toEqual([]);
  expect(regionWords(facts, { region: 'itu3' })).toContain('a set for ITU region 1');
  expect(regionWords(facts, { region: 'itu1' })).toBeNull();
  expect(regionWords(facts, { region: 'orrin' })).toBeNull();
});
