import * as fc from '../core/property.test.kit';
import { crc32 as zlibCrc32 } from 'node:zlib';
import { encodePeople, type ShownName } from '../core/image';
import { blockFrame, linkRun, secondsOnLine, type LinkEvent, type LinkTask } from '../core/link';

import { deviceOf, hear, hearNothing, letGo, powerUp, type Device } from './bench/device';
import { nameInRadio } from './bench/device-people';
import { newMemory, UNITS } from './bench/units';

/** People into the memory that a radio has for them, without sockets or clock: faults at any byte, and writes that go on where they broke off. */

const unit = UNITS.find(({ model }) => model.digital?.people.where === 'apart')!;
const { model, serial } = unit;
const memory = newMemory(unit);

const named = (count: number, word: string): ShownName[] =>
  Array.from({ length: count }, (_, n) => ({ id: 1_000_000 + 3 * n, name: `${word} ${n}` }));
const before = encodePeople(named(40, 'Before'), model);
const people = named(500, 'After');
const bytes = encodePeople(people, model);
const device: Device = { ...deviceOf(unit, memory), people: { bytes: before, write: null, open: false } };

interface Fault {
  towards: 'radio' | 'host';
  atByte: number;
  kind: 'flip' | 'lose';
  bit: number;
}

/** A task until it ends, or the cable is pulled after so many bytes towards the radio. */
function run(radio: Device, task: LinkTask, fault?: Fault, pullAt = Infinity) {
  const host = linkRun(model, task);
  const heard = { radio: 0, host: 0 };
  const events: LinkEvent[] = [];
  let [at, struck] = [radio, false];
  const spoil = (sent: Uint8Array, towards: 'radio' | 'host'): Uint8Array => {
    const from = heard[towards];
    heard[towards] += sent.length;
    if (fault?.towards !== towards || fault.atByte < from || fault.atByte >= heard[towards]) return sent;
    struck = true;
    const place = fault.atByte - from;
    if (fault.kind === 'lose') return Buffer.concat([sent.subarray(0, place), sent.subarray(place + 1)]);
    const spoilt = Uint8Array.from(sent);
    spoilt[place] = spoilt[place]! ^ (1 << fault.bit);
    return spoilt;
  };
  let said = host.begin();
  for (let turn = 0; turn < 500 && host.isOpen(); turn++) {
    const sent = Buffer.concat(said.send);
    const room = Math.max(0, pullAt - heard.radio);
    let answer = hear(at, spoil(sent.subarray(0, room), 'radio'));
    if (sent.length > room) {
      at = { ...answer.device, ...letGo(answer.device) };
      events.push(...host.step({ kind: 'closed' }).events);
      break;
    }
    if (answer.send.length === 0) answer = hearNothing(answer.device);
    at = answer.device;
    const back = spoil(Buffer.concat(answer.send), 'host');
    said = host.step(back.length > 0 ? { kind: 'bytes', bytes: back } : { kind: 'quiet' });
    events.push(...said.events);
  }
  return { radio: at, events, heard, struck, last: events.at(-1)! };
}

const WRITE: LinkTask = { kind: 'people', people: bytes, serial };
const alike = (radio: Device) => Buffer.from(radio.people.bytes).equals(Buffer.from(bytes));
/** Each block has 1,024 bytes and a frame of 11 around it. */
const ON_LINE = bytes.length + 11 * Math.ceil(bytes.length / 1024);

test('what opens a write of people is W, no address, eight bytes: length and CRC-32', () => {
  const body = Buffer.alloc(14);
  body[0] = 0x57;
  body.writeUInt16BE(8, 4);
  body.writeUInt32BE(10_016, 6);
  body.writeUInt32BE(zlibCrc32(bytes), 10);
  const check = Buffer.alloc(4);
  check.writeUInt32BE(zlibCrc32(body));
  // 500 people: 16 + 500 x 20.
  expect(bytes.length).toBe(10_016);
  const payload = [...body.subarray(6)];
  expect([...blockFrame('openPeople', 0, payload)]).toEqual([0x02, ...body, ...check]);
});

test('people are written, proved by the sum of the radio, and named when they call; its plan is not touched', () => {
  const { radio, last, events, heard } = run(device, WRITE);
  expect(last).toMatchObject({ kind: 'finished', ident: { serial } });
  expect(alike(radio)).toBe(true);
  expect(radio.memory).toBe(memory);
  expect(nameInRadio(radio, 1_000_003)).toBe('After 1');
  expect(nameInRadio(radio, 1_000_004)).toBeUndefined();
  const shares = events.flatMap((event) => (event.kind === 'progress' ? [event.bytes] : []));
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(shares.at(-1)).toBe(10_016);
  // Besides the blocks: who are you, what people, I shall write, that was all, what people: 11 bytes each, and 8 of payload.
  expect(heard.radio).toBe(ON_LINE + 5 * 11 + 8);
});

test('the very same people are not written again', () => {
  const once = run(device, WRITE);
  const again = run(once.radio, WRITE);
  expect(again.last.kind).toBe('finished');
  expect(again.events).toContainEqual({ kind: 'resumed', bytes: bytes.length });
  expect(again.heard.radio).toBe(22);
  expect(again.radio.people).toBe(once.radio.people);
});

test('at 460,800 bits a second a block of 1,024 bytes takes 22.5 ms', () => {
  expect(secondsOnLine(1024, model)).toBeCloseTo((1035 * 10) / 460_800, 9);
  expect(secondsOnLine(5_000_016, model)).toBeCloseTo(109.67, 2);
});

test('one fault on the line, wherever it strikes, ends no write and spoils nobody', () => {
  const reached = fc.tally();
  fc.assert(
    fc.property(
      fc.record({
        towards: fc.constantFrom<Fault['towards']>('radio', 'host'),
        atByte: fc.oneof(fc.nat({ max: 60 }), fc.nat({ max: 250 }), fc.nat({ max: ON_LINE + 60 })),
        kind: fc.constantFrom<Fault['kind']>('flip', 'lose'),
        bit: fc.nat({ max: 7 }),
      }),
      (fault) => {
        const { radio, last, struck } = run(device, WRITE, fault);
        reached.count(fault.towards, struck);
        expect(last).toMatchObject({ kind: 'finished', ident: { serial } });
        expect(alike(radio)).toBe(true);
        expect(radio.memory).toBe(memory);
      },
    ),
    { numRuns: 400 },
  );
  for (const towards of ['radio', 'host']) reached.expectShare(towards, 0.15);
});

test('pulled at any byte, nobody is named wrongly, and the same write goes on where it was, the radio switched off in between or not', () => {
  const said = fc.tally();
  fc.assert(
    fc.property(
      fc.oneof(
        fc.nat({ max: ON_LINE + 70 }),
        fc.nat({ max: 80 }),
        fc.integer({ min: ON_LINE, max: ON_LINE + 70 }),
      ),
      fc.boolean(),
      (pullAt, off) => {
        const broken = run(device, WRITE, undefined, pullAt);
        if (broken.last.kind === 'finished') return;
        if (broken.last.kind !== 'failed') throw new Error('It has not ended');
        said.count(broken.last.radio);
        const name = nameInRadio(broken.radio, 1_000_003);
        expect(['Before 1', 'After 1', undefined]).toContain(name);
        if (broken.last.radio === 'untouched') expect(name).toBe('Before 1');
        if (broken.last.radio === 'half written') expect(name).toBeUndefined();
        expect(broken.radio.memory).toBe(memory);
        const back = run(off ? powerUp(broken.radio) : broken.radio, WRITE);
        expect(back.last.kind).toBe('finished');
        expect(alike(back.radio)).toBe(true);
        const there = broken.radio.people.write?.blocks.reduce((sum, block) => sum + (block?.length ?? 0), 0);
        expect(back.heard.radio).toBeLessThan(ON_LINE + 200 - (there ?? 0));
      },
    ),
    { numRuns: 600 },
  );
  for (const state of ['untouched', 'half written', 'written, not confirmed']) said.expectTimes(state, 1);
});

test('other people than those that broke off begin anew, and a write of the plan in between spoils neither', () => {
  const broken = run(device, WRITE, undefined, 6000);
  expect(broken.radio.people.write?.blocks.filter((block) => block !== null).length).toBe(5);
  const plan = run(broken.radio, { kind: 'write', image: memory, serial });
  expect(plan.last.kind).toBe('finished');
  expect(plan.radio.halfWritten).toBe(false);
  expect(plan.radio.people.write).toEqual(broken.radio.people.write);
  const others = encodePeople(named(300, 'Others'), model);
  const back = run(plan.radio, { kind: 'people', people: others, serial });
  expect(back.last.kind).toBe('finished');
  expect(back.events.some(({ kind }) => kind === 'resumed')).toBe(false);
  expect(nameInRadio(back.radio, 1_000_003)).toBe('Others 1');
  expect(nameInRadio(back.radio, 1_000_000 + 3 * 400)).toBeUndefined();
});

test('what it refuses is said in its own words, and nobody in it is another', () => {
  const small = {
    ...model,
    digital: { ...model.digital!, people: { ...model.digital!.people, count: 499 } },
  };
  for (const [radio, words] of [
    [{ ...device, battery: 19 }, 'battery is too low'],
    [{ ...device, refusesWriting: true }, 'refuses to be written'],
    [{ ...device, serial: 'HR700588' }, 'not unit'],
    [{ ...device, identAs: 'KESTRELC' }, 'This is no Osprey D7'],
    [{ ...device, model: small as typeof model }, 'room for 9,996 bytes of people'],
  ] as const) {
    const { last, radio: after } = run(radio, WRITE);
    expect(last).toMatchObject({
      kind: 'failed',
      radio: 'untouched',
      reason: expect.stringContaining(words) as string,
    });
    expect(after.people.bytes).toBe(before);
  }
});
