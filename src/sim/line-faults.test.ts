import * as fc from '../core/property.test.kit';
import { isOpen, startLink, stepLink, type LinkEvent, type LinkStep, type LinkTask } from '../core/link';

import { deviceOf, hear, hearNothing, type Device } from './bench/device';
import { newMemory, UNITS } from './bench/units';
import { isCounter, otherMemory, smallRadio } from './small-radio.test.kit';

/** Host and radio on one line without sockets or clock, with a fault at any byte of either direction. */

const unit = UNITS[0]!;
const memory = newMemory(unit);
const device = deviceOf(unit, memory);
/** The content in another order of slots, with a sum that holds. */
const other = newMemory({ ...unit, content: { ...unit.content, channels: unit.content.channels.slice(3) } });

interface Fault {
  towards: 'radio' | 'host';
  /** Counted from the first byte of that direction. */
  atByte: number;
  kind: 'flip' | 'lose';
  bit: number;
}

/**
 * Runs a task to its end; a silence is told to both when nothing is on the line. `pullAt` pulls the cable after so many bytes towards the
 * radio; `before` is the radio at the beginning.
 */
function run(task: LinkTask, fault?: Fault, pullAt = Infinity, before: Device = device) {
  let radio = before;
  let step: LinkStep = startLink(before.model, task);
  const events: LinkEvent[] = [];
  const heard = { radio: 0, host: 0 };
  let struck = false;
  const spoil = (bytes: Uint8Array, towards: 'radio' | 'host'): Uint8Array => {
    const from = heard[towards];
    heard[towards] += bytes.length;
    if (!fault || fault.towards !== towards || fault.atByte < from || fault.atByte >= heard[towards])
      return bytes;
    struck = true;
    const at = fault.atByte - from;
    if (fault.kind === 'lose') return Buffer.concat([bytes.subarray(0, at), bytes.subarray(at + 1)]);
    const spoilt = Uint8Array.from(bytes);
    spoilt[at] = spoilt[at]! ^ (1 << fault.bit);
    return spoilt;
  };
  for (let turn = 0; turn < 2000 && isOpen(step.state); turn++) {
    const sent = Buffer.concat(step.send);
    const room = Math.max(0, pullAt - heard.radio);
    const arrives = spoil(sent.subarray(0, room), 'radio');
    let answer = hear(radio, arrives);
    if (sent.length > room) {
      radio = answer.device;
      step = stepLink(step.state, { kind: 'closed' });
      events.push(...step.events);
      break;
    }
    if (answer.send.length === 0) answer = hearNothing(answer.device);
    radio = answer.device;
    const bytes = spoil(Buffer.concat(answer.send), 'host');
    step = stepLink(step.state, bytes.length > 0 ? { kind: 'bytes', bytes } : { kind: 'quiet' });
    events.push(...step.events);
  }
  return { radio, last: events.at(-1)!, struck, heard };
}

const TASKS: readonly LinkTask[] = [
  { kind: 'identify' },
  { kind: 'read' },
  { kind: 'write', image: other, serial: unit.serial },
];
const within = (bytes: number) => fc.oneof(fc.nat({ max: 40 }), fc.nat({ max: bytes - 1 }));

test('one fault on the line, wherever it strikes, ends no task and spoils nothing', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      fc.constantFrom(...TASKS),
      fc.record({
        towards: fc.constantFrom('radio', 'host'),
        atByte: within(8400),
        kind: fc.constantFrom('flip', 'lose'),
        bit: fc.nat({ max: 7 }),
      }),
      (task, fault) => {
        const { radio, last, struck } = run(task, fault as Fault);
        reached.count(task.kind, struck);
        expect(last).toMatchObject({ kind: 'finished', ident: { serial: unit.serial } });
        if (last.kind === 'finished' && task.kind === 'read') expect(last.image).toEqual(memory);
        expect(radio.halfWritten).toBe(false);
        const now = Buffer.from(radio.memory);
        const wanted = task.kind === 'write' ? other : memory;
        // The counters are the radio's own.
        expect(now.subarray(0x80).equals(Buffer.from(wanted).subarray(0x80))).toBe(true);
        expect(now.subarray(0, 0x70).equals(Buffer.from(wanted).subarray(0, 0x70))).toBe(true);
      },
    ),
    { numRuns: 400 },
  );
  for (const { kind } of TASKS) reached.expectShare(kind, 0.2);
});

/** Offsets within a frame of a block that are not its payload, and the ends of that: start, type, number, length, check. */
const AROUND_A_BLOCK = [0, 1, 2, 3, 4, 5, 260, 261, 262];
/** Bytes on the line before the first block: identification or its answer, and what opens the pass. */
const everyByte = (to: number, from = 0) => Array.from({ length: to - from }, (_, n) => from + n);
const blocksFrom = (start: number) =>
  everyByte(32).flatMap((block) => AROUND_A_BLOCK.map((offset) => start + block * 263 + offset));
/** The payload of one block: what befalls it there befalls it in any. */
const payloadFrom = (start: number) => everyByte(start + 7 * 263 + 260, start + 7 * 263 + 6);

/**
 * Every place where a frame is more than payload, for each way of the line, and the payload of one block: identify 7 bytes, its answer 31, read 7, write 9, ready 7,
 * acks of 7 each, end 11. Other payload is struck at random above.
 */
const PLACES: [string, LinkTask, Fault['towards'], number[]][] = [
  ['a read, towards the radio', TASKS[1]!, 'radio', everyByte(14)],
  [
    'a read, towards the host',
    TASKS[1]!,
    'host',
    [...everyByte(31), ...blocksFrom(31), ...payloadFrom(31), ...everyByte(31 + 8416 + 11, 31 + 8416)],
  ],
  [
    'a write, towards the radio',
    TASKS[2]!,
    'radio',
    [...everyByte(16), ...blocksFrom(16), ...payloadFrom(16), ...everyByte(16 + 8416 + 11, 16 + 8416)],
  ],
  ['a write, towards the host', TASKS[2]!, 'host', everyByte(31 + 7 + 32 * 7 + 7)],
];

/** Runs a task once for each bit of each of those places flipped, and once for each such byte lost: it must end, and nothing be spoilt. */
function strikeEach(
  task: LinkTask,
  towards: Fault['towards'],
  places: readonly number[],
  { before, wanted, isOwn }: { before: Device; wanted: Uint8Array; isOwn: (at: number) => boolean },
) {
  for (const atByte of places)
    for (let bit = 0; bit <= 8; bit++) {
      const fault: Fault = { towards, atByte, kind: bit === 8 ? 'lose' : 'flip', bit: bit % 8 };
      const { radio, last, struck } = run(task, fault, Infinity, before);
      const sound =
        struck &&
        last.kind === 'finished' &&
        !radio.halfWritten &&
        radio.memory.every((byte, at) => isOwn(at) || byte === wanted[at]);
      if (!sound) throw new Error(`${JSON.stringify(fault)}: ${JSON.stringify(last).slice(0, 200)}`);
    }
}

// On the small radio every byte of the line, here and each time; the places of the Tern, whose line is twenty times as long, in npm run explore.
describe('a radio with five blocks of 64 bytes', () => {
  const small = smallRadio({ kind: 'stream', ident: 'WREN-1  ', lineRate: 9600, blockBytes: 64, window: 2 });
  const before = deviceOf(small, newMemory(small));
  const changed = otherMemory(small);
  const tasks: Record<'read' | 'write', LinkTask> = {
    read: { kind: 'read' },
    write: { kind: 'write', image: changed, serial: small.serial },
  };
  test.each([
    // Identify 7, read 7, and an ack of 7 for each block, where one is said.
    ['read', 'radio', 14],
    // The answer to identify 31, five blocks of 64 and 7, the end 11.
    ['read', 'host', 31 + 5 * 71 + 11],
    // Identify 7, write 9, the blocks, the end 11.
    ['write', 'radio', 16 + 5 * 71 + 11],
    // The answer to identify 31, ready 7, an ack of 7 for each block and for the end.
    ['write', 'host', 31 + 7 + 5 * 7 + 7],
  ] as const)(
    'a %s, towards the %s: every bit of every byte flipped, and every byte lost',
    (kind, towards, bytes) => {
      const task = tasks[kind];
      expect(run(task, undefined, Infinity, before).heard[towards]).toBeGreaterThanOrEqual(bytes);
      const wanted = kind === 'write' ? changed : before.memory;
      strikeEach(task, towards, everyByte(bytes), { before, wanted, isOwn: isCounter });
    },
  );
});

if (fc.EXPLORING)
  test.each(PLACES)(
    '%s: every bit of every place flipped, and every such byte lost',
    (_, task, towards, places) => {
      const wanted = task.kind === 'write' ? other : memory;
      strikeEach(task, towards, places, { before: device, wanted, isOwn: (at) => at >= 0x70 && at < 0x80 });
    },
  );

test('pulled at any byte, what is said of the radio is true', () => {
  const said = fc.tally();
  fc.assert(
    fc.property(within(8700), (pullAt) => {
      const { radio, last } = run(TASKS[2]!, undefined, pullAt);
      if (last.kind === 'finished') return expect(radio.halfWritten).toBe(false);
      if (last.kind !== 'failed') throw new Error('It has not ended');
      said.count(last.radio);
      if (last.radio === 'untouched') {
        expect(radio.halfWritten).toBe(false);
        expect(radio.memory).toBe(memory);
      }
      if (last.radio === 'half written') expect(radio.halfWritten).toBe(true);
    }),
    { numRuns: 300 },
  );
  for (const state of ['untouched', 'perhaps begun', 'half written']) said.expectTimes(state, 1);
});

test('in the first block of a write the radio is whole, and nothing else is said of it', () => {
  // identify takes 7 bytes, the opening of the write 9; the first block ends 263 bytes later
  for (const pullAt of [17, 100, 278]) {
    const { radio, last } = run(TASKS[2]!, undefined, pullAt);
    expect(last).toMatchObject({ kind: 'failed', radio: 'perhaps begun' });
    expect(radio.halfWritten).toBe(false);
    expect(radio.memory).toBe(memory);
  }
});
