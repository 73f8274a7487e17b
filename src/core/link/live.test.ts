import * as fc from '../property.test.kit';
import { petrelHF9 } from '../models/petrel-hf9';
import {
  applyStretches,
  differing,
  isLive,
  nextPart,
  startLive,
  stepLive,
  type LiveEvent,
  type LiveState,
} from '.';
import { blockFrame } from './block-frame';
import { blockIdentBytes } from './ident';

/** What goes over a live link, byte by byte; a radio of 8,192 zeros, whose CRC-32 is D8F49994, by zlib. */

const hex = (bytes: Uint8Array) =>
  Buffer.from(bytes)
    .toString('hex')
    .replace(/(..)(?=.)/g, '$1 ');
const bytes = (text: string) => Uint8Array.from(Buffer.from(text.replaceAll(' ', ''), 'hex'));
const ident = {
  ...{ model: 'PETRLHF9', serial: 'OR910031', firmware: '1.30', region: 3, imageBytes: 8192 },
  ...{ halfWritten: false, battery: null, module: 0 },
};

/** The host, and what it has sent and said. */
class Host {
  state: LiveState;
  sent: string[] = [];
  events: LiveEvent[] = [];
  constructor(serial: string | null = ident.serial) {
    const { state, send } = startLive(petrelHF9, serial);
    this.state = state;
    this.sent = send.map(hex);
  }
  input(what: Parameters<typeof stepLive>[1]): this {
    const { state, send, events } = stepLive(this.state, what);
    this.state = state;
    this.sent = send.map(hex);
    this.events = events;
    return this;
  }
  hears = (text: string) => this.input({ kind: 'bytes', bytes: bytes(text) });
  frame = (...frame: Parameters<typeof blockFrame>) =>
    this.input({ kind: 'bytes', bytes: blockFrame(...frame) });
}

/** A host that has read the whole radio, and stands before it. */
function hostThatHasRead(): Host {
  const host = new Host();
  host.frame('here', 0, blockIdentBytes(ident));
  for (let block = 0; block < 16; block++) host.frame('given', block * 512, new Uint8Array(512));
  return host.frame('summed', 0, bytes('d8f49994'));
}
const LIVE_AT_12 = '02 6c 00 00 00 00 06 d8 f4 99 94 00 0c 45 60 48 2a';
const LIVE = hostThatHasRead().hears(LIVE_AT_12).state;
/** The same again and again: a state is a value. */
const liveHost = (): Host => {
  const host = new Host();
  host.state = LIVE;
  return host;
};

test('once it is read the radio is asked to go live, and says the sum of what it holds and where it stands', () => {
  const host = hostThatHasRead();
  expect(host.sent).toEqual(['02 4c 00 00 00 00 00 c9 58 6b b4']);
  host.hears(LIVE_AT_12);
  expect(host.events).toEqual([{ kind: 'live', ident, image: new Uint8Array(8192), slot: 12 }]);
});

test('the sum of something else, by a key that was pressed meanwhile: it is read again', () => {
  const host = hostThatHasRead().frame('lively', 0, bytes('00000001 000c'));
  expect(host.sent).toEqual([hex(blockFrame('hello'))]);
  expect(isLive(host.state)).toBe(false);
});

test('a change says what it is made on, and what stands where', () => {
  const host = liveHost();
  const image = new Uint8Array(8192);
  image.set([1, 2, 3], 0x200);
  host.input({ kind: 'want', image });
  expect(host.sent).toEqual([
    '02 54 00 00 00 00 0f 01 01 00 d8 f4 99 94 00 02 00 00 03 01 02 03 a0 5c c3 ac',
  ]);
  // Not answered: said again, the very same.
  host.input({ kind: 'quiet' });
  expect(host.sent[0]).toMatch(/^02 54 .* a0 5c c3 ac$/);
  host.hears('02 74 00 00 00 00 01 01 eb 57 2a 91');
  expect(host.events).toEqual([{ kind: 'kept', image }]);
  host.input({ kind: 'beat' });
  expect(host.sent).toEqual(['02 42 00 00 00 00 00 f3 52 0a c4']);
  host.hears('02 62 00 00 00 00 06 93 39 b8 a7 00 0c e6 e8 de 63');
  expect([host.events, host.sent]).toEqual([[], []]);
});

test('the knob and the keys are heard', () => {
  const host = liveHost().hears('02 75 00 00 00 00 02 00 07 1c 72 01 50');
  expect(host.events).toEqual([{ kind: 'turned', slot: 7 }]);
  expect(host.hears('02 75 00 00 00 00 02 ff ff 3c 30 86 0c').events).toEqual([
    { kind: 'turned', slot: null },
  ]);
  const image = new Uint8Array(8192);
  image.set([0x41, 0x42], 0x0e00);
  host.hears('02 65 00 00 00 00 0e 00 01 00 d8 f4 99 94 00 0e 00 00 02 41 42 12 47 fa ea');
  expect(host.events).toEqual([{ kind: 'changed', image }]);
  // The same once more is made on what is not there any more: something was lost.
  host.hears('02 65 00 00 00 00 0e 00 01 00 d8 f4 99 94 00 0e 00 00 02 41 42 12 47 fa ea');
  expect(host.sent).toEqual([hex(blockFrame('hello'))]);
});

test('refused since the radio moved on: worked out anew where it has said how, read again where that was lost', () => {
  const image = new Uint8Array(8192).fill(9, 0, 2);
  const refused = '02 6e 00 00 00 00 01 05 2f 94 2d 08';
  const host = liveHost().input({ kind: 'want', image });
  host.hears('02 65 00 00 00 00 0e 00 01 00 d8 f4 99 94 00 0e 00 00 02 41 42 12 47 fa ea').hears(refused);
  expect(host.events).toMatchObject([{ kind: 'overtaken' }]);
  const lost = liveHost().input({ kind: 'want', image }).hears(refused);
  expect(lost.sent).toEqual([hex(blockFrame('hello'))]);
});

test('another unit, one that is half written, one that is silent three times: not followed', () => {
  const other = new Host('OR910044').frame('here', 0, blockIdentBytes(ident));
  expect(other.events.at(-1)).toMatchObject({
    kind: 'failed',
    reason: 'This is unit OR910031, not unit OR910044.',
  });
  const half = new Host().frame('here', 0, blockIdentBytes({ ...ident, halfWritten: true }));
  for (let block = 0; block < 16; block++) half.frame('given', block * 512, new Uint8Array(512));
  half.frame('summed', 0, bytes('d8f49994'));
  expect(half.events).toMatchObject([{ kind: 'failed', reason: 'The radio is half written.' }]);
  const silent = liveHost().input({ kind: 'beat' });
  for (let n = 0; n < 3; n++) silent.input({ kind: 'quiet' });
  expect(silent.events).toMatchObject([{ kind: 'failed', reason: 'The radio stopped answering.' }]);
  // Nothing is awaited: a silence means nothing.
  expect(liveHost().input({ kind: 'quiet' }).events).toEqual([]);
});

test('the stretches of a change lead from one image to the other, in frames of at most 1,024 bytes', () => {
  const image = fc.uint8Array({ minLength: 4000, maxLength: 4000 });
  const spots = fc.array(fc.tuple(fc.nat(3999), fc.nat(700)), { maxLength: 12 });
  let [most, many] = [0, 0];
  fc.assert(
    fc.property(image, spots, (before, at) => {
      const after = before.slice();
      for (const [from, length] of at) after.fill(0xa5, from, from + length);
      const stretches = differing(before, after);
      expect(applyStretches(before, stretches)).toEqual(after);
      const host = liveHost();
      const wanted = new Uint8Array(8192);
      wanted.set(after);
      host.input({ kind: 'want', image: wanted });
      const frames = host.sent.map(bytes);
      for (const frame of frames) expect(frame.length).toBeLessThanOrEqual(1024 + 11);
      // Put together again they are the whole, in their order and in no other.
      let coming: ReturnType<typeof nextPart> | null = null;
      for (const frame of frames) coming = nextPart(coming ?? null, frame.slice(7, -4), 8192);
      if (frames.length > 0) expect(applyStretches(new Uint8Array(8192), coming!.stretches)).toEqual(wanted);
      if (frames.length > 1) {
        expect(nextPart(null, frames[1]!.slice(7, -4), 8192)).toBeUndefined();
        many++;
      }
      most = Math.max(most, frames.length);
    }),
    { numRuns: 100 },
  );
  fc.expectReached('most', most, 4);
  fc.expectReached('many', many, 51);
});
