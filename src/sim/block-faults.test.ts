import * as fc from '../core/property.test.kit';
import { crc32 as zlibCrc32 } from 'node:zlib';
import { blockFrame, linkRun, moduleStretch, type LinkEvent, type LinkTask } from '../core/link';

import { deviceOf, hear, hearNothing, letGo, powerUp, type Device } from './bench/device';
import { newMemory, UNITS } from './bench/units';
import { isCounter, otherMemory, smallRadio } from './small-radio.test.kit';

/** Host and radio on a block link without sockets or clock: modules, faults at any byte, and writes that go on where they broke off. */

const unit = UNITS.find(({ model }) => model.link?.kind === 'block' && model.link.modules.length > 1)!;
const { model, serial } = unit;
const memory = newMemory(unit);
const device = deviceOf(unit, memory);
const other = newMemory({ ...unit, content: { ...unit.content, channels: unit.content.channels.slice(2) } });
/** Counters of the radio's own, 16 bytes from 0x70. */
const isOwn = (at: number) => at >= 0x70 && at < 0x80;
const alike = (a: Uint8Array, b: Uint8Array) => a.every((byte, at) => isOwn(at) || byte === b[at]);

/** The same with 264 bytes in six blocks, the last of 24, and after them 56 bytes in two, the last of 8. */
const small = smallRadio({
  kind: 'block',
  ident: 'WREN-1  ',
  lineRate: 115_200,
  blockBytes: 48,
  window: 2,
  modules: [
    { name: 'Memories', bytes: 264 },
    { name: 'Transmitter', bytes: 56 },
  ],
});
const smallDevice = deviceOf(small, newMemory(small));
const smallOther = otherMemory(small);

interface Fault {
  towards: 'radio' | 'host';
  atByte: number;
  kind: 'flip' | 'lose';
  bit: number;
}

interface Line {
  radio: Device;
  /** Bytes that have gone each way since the task began. */
  heard: { radio: number; host: number };
  events: LinkEvent[];
  struck: boolean;
}

/** One module of a task, until it ends or the cable is pulled after so many bytes towards the radio. */
function module(line: Line, task: LinkTask, fault: Fault | undefined, pullAt: number): LinkEvent | 'pulled' {
  const run = linkRun(line.radio.model, task);
  const spoil = (bytes: Uint8Array, towards: 'radio' | 'host'): Uint8Array => {
    const from = line.heard[towards];
    line.heard[towards] += bytes.length;
    if (!fault || fault.towards !== towards || fault.atByte < from || fault.atByte >= line.heard[towards])
      return bytes;
    line.struck = true;
    const at = fault.atByte - from;
    if (fault.kind === 'lose') return Buffer.concat([bytes.subarray(0, at), bytes.subarray(at + 1)]);
    const spoilt = Uint8Array.from(bytes);
    spoilt[at] = spoilt[at]! ^ (1 << fault.bit);
    return spoilt;
  };
  let said = run.begin();
  for (let turn = 0; turn < 2000 && run.isOpen(); turn++) {
    const sent = Buffer.concat(said.send);
    const room = Math.max(0, pullAt - line.heard.radio);
    let answer = hear(line.radio, spoil(sent.subarray(0, room), 'radio'));
    if (sent.length > room) {
      line.radio = { ...answer.device, ...letGo(answer.device) };
      line.events.push(...run.step({ kind: 'closed' }).events);
      return 'pulled';
    }
    if (answer.send.length === 0) answer = hearNothing(answer.device);
    line.radio = answer.device;
    const bytes = spoil(Buffer.concat(answer.send), 'host');
    said = run.step(bytes.length > 0 ? { kind: 'bytes', bytes } : { kind: 'quiet' });
    line.events.push(...said.events);
    if (answer.moves && run.isOpen()) {
      line.radio = { ...line.radio, ...letGo(line.radio) };
      said = run.step({ kind: 'closed' });
      line.events.push(...said.events);
    }
  }
  return line.events.at(-1)!;
}

/** All modules of a task, each begun again once the radio has gone to it. */
function run(radio: Device, task: LinkTask, fault?: Fault, pullAt = Infinity) {
  const line: Line = { radio, heard: { radio: 0, host: 0 }, events: [], struck: false };
  const images: Uint8Array[] = [];
  const { link } = radio.model;
  for (const at of link?.kind === 'block' ? link.modules.keys() : []) {
    let end = module(line, { ...task, module: at }, fault, pullAt);
    for (let tries = 0; end !== 'pulled' && end.kind === 'moved' && tries < 3; tries++)
      end = module(line, { ...task, module: at }, fault, pullAt);
    if (end === 'pulled' || end.kind !== 'finished') break;
    if (end.image) images.push(end.image);
  }
  return { ...line, last: line.events.at(-1)!, image: Buffer.concat(images) };
}

const WRITE: Extract<LinkTask, { kind: 'write' }> = { kind: 'write', image: other, serial };

test('a frame is start, command, three bytes of address, two of length, payload and CRC-32, as docs/block-link.md says', () => {
  // 47 000200 0002 0200: give 512 bytes from 512 on.
  const body = Uint8Array.of(0x47, 0x00, 0x02, 0x00, 0x00, 0x02, 0x02, 0x00);
  const check = Buffer.alloc(4);
  check.writeUInt32BE(zlibCrc32(body));
  expect([...blockFrame('give', 512, [2, 0])]).toEqual([0x02, ...body, ...check]);
});

test('both modules are read, for which the radio goes from one to the other and back', () => {
  const once = run(device, { kind: 'read' });
  expect(once.last.kind).toBe('finished');
  expect(once.image.equals(Buffer.from(memory))).toBe(true);
  expect(once.events.filter(({ kind }) => kind === 'moved')).toEqual([
    { kind: 'moved', module: 1, radio: 'untouched' },
  ]);
  const again = run(once.radio, { kind: 'read' });
  expect(again.image.equals(Buffer.from(memory))).toBe(true);
  expect(again.events.filter(({ kind }) => kind === 'moved')).toHaveLength(2);
});

test('a write is whole with its last module, and not before', () => {
  const { radio, last, events } = run(device, WRITE);
  expect(last.kind).toBe('finished');
  expect(radio.halfWritten).toBe(false);
  expect(alike(radio.memory, other)).toBe(true);
  expect(events.some(({ kind }) => kind === 'resumed')).toBe(false);
  const first: Line = { radio: device, heard: { radio: 0, host: 0 }, events: [], struck: false };
  expect(module(first, { ...WRITE, module: 0 }, undefined, Infinity)).toMatchObject({ kind: 'finished' });
  expect(first.radio.halfWritten).toBe(true);
});

test('one fault on the line, wherever it strikes, ends no task and spoils nothing', () => {
  const reached = fc.tally();
  // On the line: the image, 11 bytes a block, and little else.
  const most = memory.length + 11 * (memory.length / 512) + 100;
  fc.assert(
    fc.property(
      fc.constantFrom<LinkTask>({ kind: 'read' }, WRITE),
      fc.record({
        towards: fc.constantFrom<Fault['towards']>('radio', 'host'),
        atByte: fc.oneof(fc.nat({ max: 60 }), fc.nat({ max: 1200 }), fc.nat({ max: Math.floor(most) })),
        kind: fc.constantFrom<Fault['kind']>('flip', 'lose'),
        bit: fc.nat({ max: 7 }),
      }),
      (task, fault) => {
        const { radio, last, struck, image } = run(device, task, fault);
        reached.count(task.kind, struck);
        expect(last).toMatchObject({ kind: 'finished', ident: { serial } });
        if (task.kind === 'read') expect(image.equals(Buffer.from(memory))).toBe(true);
        expect(radio.halfWritten).toBe(false);
        expect(alike(radio.memory, task.kind === 'write' ? other : memory)).toBe(true);
      },
    ),
    { numRuns: 250 },
  );
  for (const kind of ['read', 'write']) reached.expectShare(kind, 0.2);
});

/**
 * Pulls the cable in a write after so many bytes towards the radio, and begins the same write again: what is said must be true, and what was in
 * must not be sent again. Gives what was said of the radio; undefined where the write had ended before.
 */
function pullAndGoOn(
  before: Device,
  write: Extract<LinkTask, { kind: 'write' }>,
  { pullAt, off }: { pullAt: number; off: boolean },
  own: (at: number) => boolean,
) {
  const broken = run(before, write, undefined, pullAt);
  if (broken.last.kind === 'finished') return undefined;
  // A radio sent to its other module may be on its way there, or may never have heard of it: what is known is said of both.
  if (broken.last.kind !== 'failed' && broken.last.kind !== 'moved') throw new Error('It has not ended');
  if (broken.last.radio === 'untouched') expect(broken.radio.memory).toBe(before.memory);
  if (broken.last.radio === 'half written') expect(broken.radio.halfWritten).toBe(true);
  const back = run(off ? powerUp(broken.radio) : broken.radio, write);
  expect(back.last.kind).toBe('finished');
  expect(back.radio.halfWritten).toBe(false);
  expect(back.radio.memory.every((byte, at) => own(at) || byte === write.image[at])).toBe(true);
  // What was in is not sent again: the two together are one write, and what is said to begin.
  const taken = broken.radio.block.writes.flatMap((one) => one?.taken ?? []).filter(Boolean).length;
  expect(back.events.some(({ kind }) => kind === 'resumed')).toBe(taken > 0);
  return { said: broken.last.radio, taken, sentAgain: back.heard.radio };
}

test('pulled at any byte, what is said is true, and the same write goes on where it was, the radio switched off in between or not', () => {
  const said = fc.tally();
  // Half of them where the radio goes to its second module, and where it ends: there most is said that is no block.
  const anyPull = fc.oneof(
    { weight: 2, arbitrary: fc.nat({ max: memory.length + 700 }) },
    { weight: 1, arbitrary: fc.integer({ min: 17_780, max: 17_900 }) },
    { weight: 1, arbitrary: fc.integer({ min: 25_150, max: 25_250 }) },
  );
  fc.assert(
    fc.property(anyPull, fc.boolean(), (pullAt, off) => {
      const end = pullAndGoOn(device, WRITE, { pullAt, off }, isOwn);
      if (!end) return;
      said.count(end.said);
      expect(end.sentAgain).toBeLessThan(memory.length + 11 * 48 + 300 - end.taken * 512);
    }),
    // Between the last block and the word that it was the last; within the word that sends it to its second module.
    {
      // 6,000 until each byte of the line of a small radio was swept, below; npm run explore has as many.
      numRuns: 600,
      examples: [
        [25_197, false],
        [17_834, false],
      ],
    },
  );
  for (const state of ['untouched', 'half written']) said.expectTimes(state, 1);
});

describe('a radio of six and two blocks, at every byte of the line', () => {
  const write = { kind: 'write' as const, image: smallOther, serial: small.serial };

  test('its modules are what is said: blocks of 48 bytes, the last of each shorter', () => {
    const { image, radio } = run(smallDevice, { kind: 'read' });
    expect([...image]).toEqual([...smallDevice.memory]);
    expect(run(radio, write).radio.memory.every((byte, at) => isCounter(at) || byte === smallOther[at])).toBe(
      true,
    );
  });

  test.each([false, true])(
    'pulled, the same write goes on where it was; switched off in between: %s',
    (off) => {
      const { heard } = run(smallDevice, write);
      // 320 bytes in eight blocks, each with 11 around it, and what opens and closes two passes.
      expect(heard.radio).toBeGreaterThan(320 + 8 * 11);
      const said = new Set<string>();
      for (let pullAt = 0; pullAt < heard.radio; pullAt++) {
        const end = pullAndGoOn(smallDevice, write, { pullAt, off }, isCounter);
        if (!end) throw new Error(`Pulled after ${pullAt} bytes it had ended`);
        said.add(end.said);
        // At most the whole, less the blocks that were in; 300 bytes for what is said besides.
        expect(end.sentAgain).toBeLessThan(320 + 8 * 11 + 300 - end.taken * 24);
      }
      expect([...said].sort()).toEqual(expect.arrayContaining(['half written', 'untouched']));
    },
  );

  test.each([
    ['read', 'radio'],
    ['read', 'host'],
    ['write', 'radio'],
    ['write', 'host'],
  ] as const)(
    'a %s, towards the %s: every bit of every byte flipped, and every byte lost',
    (kind, towards) => {
      const task: LinkTask = kind === 'read' ? { kind } : write;
      const bytes = run(smallDevice, task).heard[towards];
      const wanted = kind === 'write' ? smallOther : smallDevice.memory;
      for (let atByte = 0; atByte < bytes; atByte++)
        for (let bit = 0; bit <= 8; bit++) {
          const fault: Fault = { towards, atByte, kind: bit === 8 ? 'lose' : 'flip', bit: bit % 8 };
          const { radio, last, struck, image } = run(smallDevice, task, fault);
          const sound =
            struck &&
            last.kind === 'finished' &&
            !radio.halfWritten &&
            radio.memory.every((byte, at) => isCounter(at) || byte === wanted[at]) &&
            (kind === 'write' || image.equals(Buffer.from(wanted)));
          if (!sound) throw new Error(`${JSON.stringify(fault)}: ${JSON.stringify(last).slice(0, 200)}`);
        }
    },
  );
});

test('another write than the one that broke off begins anew, and nothing of the first is left', () => {
  const broken = run(device, WRITE, undefined, 9000);
  expect(broken.radio.block.writes[0]?.taken.filter(Boolean).length).toBeGreaterThan(10);
  const back = run(broken.radio, { kind: 'write', image: memory, serial });
  expect(back.last.kind).toBe('finished');
  expect(back.events.some(({ kind }) => kind === 'resumed')).toBe(false);
  expect(alike(back.radio.memory, memory)).toBe(true);
});

test('what it refuses is said in its own words, and nothing of it is changed', () => {
  for (const [radio, words] of [
    [{ ...device, battery: 19 }, 'battery is too low'],
    [{ ...device, refusesWriting: true }, 'refuses to be written'],
    [{ ...device, serial: 'ORX00000' }, 'not unit'],
    [{ ...device, identAs: 'PETRHF9 ' }, 'This is no Curlew X1'],
  ] as const) {
    const { last, radio: after } = run(radio, WRITE);
    expect(last).toMatchObject({
      kind: 'failed',
      radio: 'untouched',
      reason: expect.stringContaining(words),
    });
    expect(after.memory).toBe(memory);
  }
});

test('the stretches of its modules are its image, one after the other', () => {
  expect([0, 1].map((at) => moduleStretch(model, at))).toEqual([
    { from: 0, bytes: 0x4400 },
    { from: 0x4400, bytes: 0x1c00 },
  ]);
});
