import { petrelHF9 } from '../models/petrel-hf9';
import { ternP2 } from '../models/tern-p2';
import { channelOf } from './rows';

/** Rows as a radio with one stored shift a band holds them, read by hand. */
const fields = {
  name: 'Hill',
  rx: 145_612_500,
  shift: 'none',
  other: null,
  tone: null,
  toneWay: 'none',
  mode: 'FM',
  skip: false,
  scan: true,
};
const context = { model: petrelHF9, settings: {}, zonesOf: () => [] };
const reasonOf = (more: object, model = petrelHF9) => {
  const read = channelOf({ number: 1, fields: { ...fields, ...more } }, 0, { ...context, model });
  return read.ok ? null : read.reason;
};

test('a split without its transmit side is no channel', () => {
  expect(reasonOf({ shift: 'split', other: null })).toMatch(/a split without its transmit side/);
  expect(reasonOf({ shift: 'split', other: '145' })).toMatch(/a split without its transmit side/);
});

test('a shift where the radio stores none is no channel', () => {
  // The Petrel stores one for 10 m, 6 m, 2 m and 70 cm: on 4 m and in the air band there is none.
  expect(reasonOf({ rx: 121_500_000, shift: 'minus' })).toMatch(/a shift where the radio stores none/);
  expect(reasonOf({ shift: 'minus' }, ternP2)).toMatch(/a shift where the radio stores none/);
});
