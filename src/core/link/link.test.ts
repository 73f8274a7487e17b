import * as fc from '../property.test.kit';
import { crc32 as zlibCrc32 } from 'node:zlib';
import { ternP2 } from '../models/tern-p2';
import {
  crc16,
  crc32,
  frameBytes,
  giveUpFrame,
  identBytes,
  imageSum,
  isOpen,
  NOTHING_PENDING,
  readFrames,
  readIdent,
  startLink,
  stepLink,
  sumHolds,
  WHOLE,
  type Frame,
  type LinkEvent,
  type LinkState,
  type LinkStep,
  type LinkTask,
} from '.';
import { IDENT } from '../samples.test.kit';

const IMAGE = Uint8Array.from({ length: 8192 }, (_, i) => (i * 7 + (i >> 8)) & 0xff);
const text = (s: string) => new TextEncoder().encode(s);
/** CRC-32 as Node's zlib has it, apart from the one that is tested; eight figures. */
const sum32 = (bytes: Uint8Array) => zlibCrc32(bytes).toString(16).padStart(8, '0');

test('the check is CRC-16/XMODEM, whose published value for 123456789 is 31C3', () =>
  expect(crc16(text('123456789'))).toBe(0x31c3));

test('the whole is proved by CRC-32, whose published value for 123456789 is CBF43926', () => {
  expect(crc32(text('123456789'))).toBe(0xcbf43926);
  expect(crc32(IMAGE)).toBe(zlibCrc32(IMAGE));
  expect([...imageSum(text('123456789'))]).toEqual([0xcb, 0xf4, 0x39, 0x26]);
});

test('what CRC-16 cannot tell apart, the sum of the whole does', () => {
  // The polynomial itself, anywhere in the image, is what CRC-16 takes for nothing: x^16 + x^12 + x^5 + 1.
  const other = IMAGE.slice();
  for (const [at, bits] of [0x01, 0x10, 0x21].entries()) other[100 + at] = other[100 + at]! ^ bits;
  expect(crc16(other)).toBe(crc16(IMAGE));
  expect(sumHolds(other, imageSum(IMAGE))).toBe(false);
});

test('identification is read as it was written', () => {
  expect(readIdent(identBytes(IDENT))).toEqual(IDENT);
  expect(readIdent(new Uint8Array(24))).toBeUndefined();
  expect(readIdent(new Uint8Array(3))).toBeUndefined();
});

const anyFrames = fc.array(
  fc.record({
    type: fc.constantFrom('block' as const, 'ack' as const, 'end' as const),
    sequence: fc.integer({ min: 0, max: 255 }),
    payload: fc.uint8Array({ maxLength: 60 }),
  }),
  { maxLength: 8 },
);

describe('frames', () => {
  test('any split of the stream gives the same frames', () => {
    fc.assert(
      fc.property(anyFrames, fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 1 }), (frames, cuts) => {
        const stream = Buffer.concat(frames.map((f) => frameBytes(f.type, f.sequence, f.payload)));
        const got: Frame[] = [];
        let pending = NOTHING_PENDING;
        for (let at = 0, i = 0; at < stream.length; i++) {
          const size = cuts[i % cuts.length]!;
          const read = readFrames(pending, stream.subarray(at, at + size));
          got.push(...read.frames);
          pending = read.pending;
          at += size;
        }
        expect(got.map((f) => ({ ...f, payload: [...f.payload] }))).toEqual(
          frames.map((f) => ({ ...f, payload: [...f.payload] })),
        );
        expect(pending).toHaveLength(0);
      }),
      { numRuns: 400 },
    );
  });

  test('one flipped bit never makes another frame, and the next one is read', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 1, maxLength: 60 }), fc.nat(), (payload, where) => {
        const bytes = frameBytes('block', 5, payload);
        const bit = where % (bytes.length * 8);
        bytes[bit >> 3] = bytes[bit >> 3]! ^ (1 << (bit & 7));
        // a length that was made longer waits for bytes that never come: a silence ends that
        const heard = readFrames(NOTHING_PENDING, Buffer.concat([bytes, frameBytes('ack', 9)]));
        const frames = [...heard.frames];
        for (let { pending } = heard; pending.length > 0;) {
          const given = giveUpFrame(pending);
          frames.push(...given.frames);
          ({ pending } = given);
        }
        expect(frames.some((f) => f.type === 'block' && Buffer.compare(f.payload, payload) !== 0)).toBe(
          false,
        );
        expect(frames.some((f) => f.type === 'ack' && f.sequence === 9)).toBe(true);
      }),
      { numRuns: 400 },
    );
  });
});

/** A radio that answers as docs/stream-link.md says; the tests can bend its answers. */
function radio(
  memory: Uint8Array,
  bend: (frame: Frame, n: number) => Uint8Array[] | undefined = () => undefined,
) {
  const state = { memory: memory.slice(), written: 0, frames: 0 };
  const block = (n: number) => frameBytes('block', n, state.memory.slice(n * 256, n * 256 + 256));
  const end = () => {
    return frameBytes('end', 0, Uint8Array.from(Buffer.from(sum32(state.memory), 'hex')));
  };
  const answer = (frame: Frame): Uint8Array[] => {
    const bent = bend(frame, state.frames++);
    if (bent) return bent;
    if (frame.type === 'identify') return [frameBytes('ident', 0, identBytes(IDENT))];
    if (frame.type === 'read') return [...Array.from({ length: 32 }, (_, n) => block(n)), end()];
    if (frame.type === 'again') return [...[...frame.payload].map(block), end()];
    if (frame.type === 'write') return [frameBytes('ready')];
    if (frame.type === 'block') {
      state.memory.set(frame.payload, frame.sequence * 256);
      return [frameBytes('ack', frame.sequence)];
    }
    if (frame.type === 'end') return [frameBytes('ack', WHOLE)];
    return [];
  };
  return { state, answer };
}

/** Runs a link against a radio; `cut` splits what the radio says. Silence is told where the radio has nothing to say. */
function converse(
  task: LinkTask,
  device: ReturnType<typeof radio>,
  cut: (bytes: Uint8Array) => Uint8Array[] = (b) => [b],
  closeAfter = Infinity,
) {
  let step: LinkStep = startLink(ternP2, task);
  const events: LinkEvent[] = [];
  let heard = 0;
  let underWay = 0;
  let link: LinkState = step.state;
  for (let turn = 0; turn < 5000 && isOpen(link); turn++) {
    const said = step.send
      .flatMap((bytes) => readFrames(NOTHING_PENDING, bytes).frames)
      .flatMap((frame) => device.answer(frame));
    const chunks = said.flatMap(cut);
    const send: Uint8Array[] = [];
    const take = (next: LinkStep) => {
      link = next.state;
      send.push(...next.send);
      events.push(...next.events);
      underWay = Math.max(underWay, link.underWay.length);
    };
    if (chunks.length === 0) take(stepLink(link, { kind: 'quiet' }));
    for (const bytes of chunks) {
      heard += bytes.length;
      take(
        heard > closeAfter ? stepLink(link, { kind: 'closed' }) : stepLink(link, { kind: 'bytes', bytes }),
      );
    }
    step = { state: link, send, events: [] };
  }
  return { link, events, last: events.at(-1), underWay };
}

describe('reading', () => {
  test('gives the image, with progress to the end', () => {
    const { events, last } = converse({ kind: 'read' }, radio(IMAGE));
    expect(last).toMatchObject({ kind: 'finished', image: IMAGE, ident: IDENT });
    expect(events.filter((e) => e.kind === 'progress').map((e) => e.bytes)).toEqual(
      Array.from({ length: 32 }, (_, i) => (i + 1) * 256),
    );
  });
  test('survives any split of the byte stream', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 400 }), { minLength: 1, maxLength: 20 }), (sizes) => {
        let i = 0;
        const cut = (bytes: Uint8Array) => {
          const parts: Uint8Array[] = [];
          for (let at = 0; at < bytes.length;) {
            const size = sizes[i++ % sizes.length]!;
            parts.push(bytes.slice(at, at + size));
            at += size;
          }
          return parts;
        };
        expect(converse({ kind: 'read' }, radio(IMAGE), cut).last).toMatchObject({
          kind: 'finished',
          image: IMAGE,
        });
      }),
      { numRuns: 40 },
    );
  });
  test('a damaged block is asked for again', () => {
    const device = radio(IMAGE);
    let first = true;
    const cut = (bytes: Uint8Array) => {
      if (bytes[1] === 0x44 && bytes[2] === 7 && first) {
        first = false;
        const damaged = bytes.slice();
        damaged[50] = damaged[50]! ^ 4;
        return [damaged];
      }
      return [bytes];
    };
    const { events, last } = converse({ kind: 'read' }, device, cut);
    expect(last).toMatchObject({ kind: 'finished', image: IMAGE });
    expect(events.filter((e) => e.kind === 'repeated')).toEqual([{ kind: 'repeated', block: 7 }]);
  });
  test('silence ends with a reason after three tries; the radio is untouched', () => {
    const { last } = converse(
      { kind: 'read' },
      radio(IMAGE, () => []),
    );
    expect(last).toMatchObject({
      kind: 'failed',
      radio: 'untouched',
      reason: expect.stringContaining('does not answer'),
    });
  });
  test('another model is refused by its own name', () => {
    const other = radio(IMAGE, (f) =>
      f.type === 'identify'
        ? [frameBytes('ident', 0, identBytes({ ...IDENT, model: 'TERN-P3 ' }))]
        : undefined,
    );
    expect(converse({ kind: 'read' }, other).last).toMatchObject({
      kind: 'failed',
      reason: expect.stringContaining('TERN-P3'),
    });
    // nor is one of that name whose memory is of another length
    const longer = radio(IMAGE, (f) =>
      f.type === 'identify'
        ? [frameBytes('ident', 0, identBytes({ ...IDENT, imageBytes: IDENT.imageBytes + 16 }))]
        : undefined,
    );
    expect(converse({ kind: 'read' }, longer).last).toMatchObject({
      kind: 'failed',
      radio: 'untouched',
      reason: expect.stringContaining('This is no Tern P2'),
    });
  });
});

describe('writing', () => {
  const task: LinkTask = { kind: 'write', image: IMAGE, serial: 'LK204417' };
  test('leaves the radio with the image, never more under way than the window', () => {
    const device = radio(new Uint8Array(8192));
    const { last, underWay } = converse(task, device);
    expect(last).toMatchObject({ kind: 'finished' });
    expect(device.state.memory).toEqual(IMAGE);
    expect(underWay).toBe(4);
  });
  test('another unit is not touched', () => {
    const device = radio(new Uint8Array(8192));
    const { last } = converse({ ...task, serial: 'LK999999' } as LinkTask, device);
    expect(last).toMatchObject({
      kind: 'failed',
      radio: 'untouched',
      reason: expect.stringContaining('LK204417'),
    });
    expect(device.state.memory).toEqual(new Uint8Array(8192));
  });
  test('a block refused as damaged, and an answer that is lost, are sent again', () => {
    const met = new Map<number, number>();
    const device = radio(new Uint8Array(8192), (f) => {
      if (f.type !== 'block') return undefined;
      met.set(f.sequence, (met.get(f.sequence) ?? 0) + 1);
      if (met.get(f.sequence)! > 1) return undefined;
      if (f.sequence === 4) return [frameBytes('no', 4, Uint8Array.of(0))];
      return f.sequence === 10 ? [] : undefined;
    });
    const { last, events } = converse(task, device);
    expect(last).toMatchObject({ kind: 'finished' });
    expect(device.state.memory).toEqual(IMAGE);
    expect(events.filter((e) => e.kind === 'repeated')).toEqual([
      { kind: 'repeated', block: 4 },
      { kind: 'repeated', block: 10 },
    ]);
    // each of the others went over the line once
    expect([...met].filter(([, times]) => times > 1)).toEqual([
      [4, 2],
      [10, 2],
    ]);
  });
  test.each([
    ['a low battery', 'write', 1, 'untouched', /battery/],
    ['a sum that fails', 'end', 3, 'written, not confirmed', /add up/],
  ] as const)('%s is told', (_, type, code, state, reason) => {
    const device = radio(new Uint8Array(8192), (f) =>
      f.type === type ? [frameBytes('no', 0, Uint8Array.of(code))] : undefined,
    );
    expect(converse(task, device).last).toMatchObject({
      kind: 'failed',
      radio: state,
      reason: expect.stringMatching(reason),
    });
  });
  test('a port that vanishes on the way leaves it half written, before the first block untouched', () => {
    expect(converse(task, radio(new Uint8Array(8192)), undefined, 100).last).toMatchObject({
      kind: 'failed',
      radio: 'half written',
    });
    expect(converse(task, radio(new Uint8Array(8192)), undefined, 5).last).toMatchObject({
      kind: 'failed',
      radio: 'untouched',
    });
  });
});

test('what is lost once is said again: every kind of frame of a read and of a write', () => {
  for (const [task, types] of [
    [{ kind: 'read' }, ['identify', 'read']],
    [{ kind: 'write', image: IMAGE, serial: 'LK204417' }, ['identify', 'write', 'block', 'end']],
  ] as [LinkTask, Frame['type'][]][])
    for (const type of types) {
      let lost = 0;
      const device = radio(task.kind === 'read' ? IMAGE : new Uint8Array(8192), (frame) =>
        frame.type === type && lost++ === 0 ? [] : undefined,
      );
      const { last } = converse(task, device);
      expect([type, lost > 0, last?.kind]).toEqual([type, true, 'finished']);
      expect(device.state.memory).toEqual(IMAGE);
    }
});

test('a refusal in the middle of a write, and a wrong identification, end it with what is known', () => {
  const refusing = radio(new Uint8Array(8192), (frame) =>
    frame.type === 'block' && frame.sequence === 9 ? [frameBytes('no', 9, Uint8Array.of(2))] : undefined,
  );
  expect(converse({ kind: 'write', image: IMAGE, serial: 'LK204417' }, refusing).last).toMatchObject({
    kind: 'failed',
    radio: 'half written',
    reason: expect.stringContaining('refuses to be written'),
  });
  const strange = radio(IMAGE, (frame) =>
    frame.type === 'identify' ? [frameBytes('ident', 0, new Uint8Array(7))] : undefined,
  );
  expect(converse({ kind: 'read' }, strange).last).toMatchObject({
    kind: 'failed',
    radio: 'untouched',
    reason: expect.stringContaining('not a radio that Veridon knows'),
  });
});

test('a frame that is none of the answers waited for changes nothing, wherever in a write it comes', () => {
  const task: LinkTask = { kind: 'write', image: IMAGE, serial: 'LK204417' };
  const stray = [
    frameBytes('ready'),
    frameBytes('block', 3, new Uint8Array(256)),
    frameBytes('ident', 0, identBytes(IDENT)),
    // An answer to a block that is not under way, and one that says that such a block is damaged.
    frameBytes('ack', 31),
    frameBytes('no', 31, Uint8Array.of(0)),
  ];
  for (const [type, frames] of [
    ['write', stray.filter((_, at) => at !== 0 && at !== 4)],
    ['block', stray],
    ['end', stray.filter((_, at) => at !== 4)],
  ] as const) {
    let met = 0;
    const device = radio(new Uint8Array(8192), (frame) => {
      if (frame.type !== type || met++ > 0) return undefined;
      // First what nobody asked for, then what was.
      const own = radio(device.state.memory).answer(frame);
      if (frame.type === 'block') device.state.memory.set(frame.payload, frame.sequence * 256);
      return [...frames, ...own];
    });
    const { last, events } = converse(task, device);
    expect([type, met, last?.kind]).toEqual([type, expect.any(Number), 'finished']);
    expect(met).toBeGreaterThan(0);
    expect(events.filter(({ kind }) => kind === 'repeated')).toEqual([]);
    expect(device.state.memory).toEqual(IMAGE);
  }
});

test('no bytes whatever make the link throw', () => {
  fc.assert(
    fc.property(
      fc.array(fc.uint8Array({ maxLength: 80 })),
      fc.constantFrom<LinkTask>({ kind: 'read' }, { kind: 'write', image: IMAGE, serial: 'X' }),
      (chunks, task) => {
        let { state } = startLink(ternP2, task);
        for (const bytes of chunks) ({ state } = stepLink(state, { kind: 'bytes', bytes }));
        expect(isOpen(state)).toBe(true);
      },
    ),
  );
});
