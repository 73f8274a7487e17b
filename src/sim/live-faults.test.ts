import * as fc from '../core/property.test.kit';
import { decodeImage, encodeImage, imageHolds } from '../core/image';
import {
  isLive,
  isLiveOpen,
  startLive,
  stepLive,
  type LiveEvent,
  type LiveInput,
  type LiveState,
  type LiveStep,
} from '../core/link';

import { contentOf, deviceOf, hear, hearNothing, keyed, type Device } from './bench/device';
import { newsOf } from './bench/device-live';
import { newMemory, UNITS } from './bench/units';

/** Host and radio on a live link without sockets or clock: changes on both sides at once, and bytes that are spoilt or lost on the way. */

const unit = UNITS.find(({ model }) => model.link?.kind === 'live')!;
const { model, serial } = unit;

interface Fault {
  towards: 'radio' | 'host';
  atByte: number;
  kind: 'flip' | 'lose';
}

/** Both ends, and what is on the line between them. */
class Line {
  radio: Device = deviceOf(unit, newMemory(unit));
  host: LiveState;
  readonly events: LiveEvent[] = [];
  private toRadio: number[] = [];
  private toHost: number[] = [];
  private gone = { radio: 0, host: 0 };
  struck = 0;

  constructor(private readonly faults: readonly Fault[]) {
    const step = startLive(model, serial);
    this.host = step.state;
    this.said(step);
  }

  private said({ state, send, events }: LiveStep) {
    this.host = state;
    this.events.push(...events);
    // Whatever is said to be in the radio was in it, whole.
    for (const event of events) if ('image' in event) expect(imageHolds(event.image, model)).toBe(true);
    for (const bytes of send) this.toRadio.push(...bytes);
  }
  input(input: LiveInput) {
    this.said(stepLive(this.host, input));
  }
  private spoilt(bytes: number[], towards: Fault['towards']): Uint8Array {
    const out: number[] = [];
    for (const byte of bytes) {
      const at = this.gone[towards]++;
      const fault = this.faults.find((one) => one.towards === towards && one.atByte === at);
      if (fault) this.struck++;
      if (fault?.kind === 'lose') continue;
      out.push(fault ? byte ^ 0x10 : byte);
    }
    return Uint8Array.from(out);
  }
  /** Lets so many bytes go each way. */
  carry(most: number) {
    const down = this.spoilt(this.toRadio.splice(0, most), 'radio');
    const { device, send } = hear(this.radio, down);
    this.radio = device;
    for (const bytes of send) this.toHost.push(...bytes);
    const up = this.spoilt(this.toHost.splice(0, most), 'host');
    if (up.length > 0) this.input({ kind: 'bytes', bytes: up });
  }
  /** Nothing comes any more: both give up what was begun. */
  silence() {
    const { device, send } = hearNothing(this.radio);
    this.radio = device;
    for (const bytes of send) this.toHost.push(...bytes);
    if (this.toHost.length === 0) this.input({ kind: 'quiet' });
  }
  /** Until nothing is on its way. */
  settle(most: number) {
    for (let n = 0; n < 4000 && this.toRadio.length + this.toHost.length > 0; n++) this.carry(most);
  }
  key(slot: number, rx: number) {
    const before = this.radio;
    this.radio = { ...keyed(before, { list: 0, slot, rx, name: `KEY ${slot}` }), slot };
    for (const bytes of newsOf(before, this.radio)) this.toHost.push(...bytes);
  }
}

/** Asks for a channel in a slot, on what the host takes for the radio's image. */
function want(line: Line, slot: number, rx: number) {
  if (!isLive(line.host)) return;
  const content = decodeImage(line.host.image, model);
  if (!content.ok) throw new Error(content.reason);
  const others = content.value.channels.filter((channel) => channel.slot !== slot);
  const channel = {
    ...{ list: 0, slot, name: `WANT ${slot}`, rx, tx: rx, send: null, expect: null },
    ...{ mode: 'FM' as const, power: 50_000, scan: true },
  };
  const channels = [...others, channel].sort((a, b) => a.slot - b.slot);
  line.input({ kind: 'want', image: encodeImage({ ...content.value, channels }, line.host.image, model) });
}

test('whatever is changed on either side, and whatever the line spoils, both end with the same and the image holds', () => {
  const seen = fc.tally();
  const hz = fc.integer({ min: 0, max: 159 }).map((n) => 144_000_000 + n * 25_000);
  const step = fc.oneof(
    {
      weight: 3,
      arbitrary: fc.record({
        kind: fc.constant('want' as const),
        slot: fc.integer({ min: 1, max: 120 }),
        hz,
      }),
    },
    {
      weight: 3,
      arbitrary: fc.record({ kind: fc.constant('key' as const), slot: fc.integer({ min: 1, max: 120 }), hz }),
    },
    {
      weight: 4,
      arbitrary: fc.record({ kind: fc.constant('carry' as const), bytes: fc.integer({ min: 1, max: 300 }) }),
    },
    { weight: 1, arbitrary: fc.record({ kind: fc.constant('beat' as const) }) },
  );
  const kind = fc.constantFrom('flip' as const, 'lose' as const);
  // Once in the first read, which is the block link's affair, and four times behind it: the answers of 8 KB in 16 blocks take 8,439 bytes.
  const fault = fc.oneof(
    { weight: 1, arbitrary: fc.record({ towards: fc.constant('host' as const), atByte: fc.nat(900), kind }) },
    {
      weight: 3,
      arbitrary: fc.record({
        towards: fc.constant('host' as const),
        atByte: fc.integer({ min: 8440, max: 8900 }),
        kind,
      }),
    },
    {
      weight: 2,
      arbitrary: fc.record({
        towards: fc.constant('radio' as const),
        atByte: fc.integer({ min: 250, max: 900 }),
        kind,
      }),
    },
  );
  fc.assert(
    fc.property(fc.array(step, { maxLength: 25 }), fc.array(fault, { maxLength: 3 }), (steps, faults) => {
      const line = new Line(faults);
      for (let n = 0; n < 40 && !isLive(line.host); n++) {
        line.settle(5000);
        if (!isLive(line.host)) line.silence();
      }
      if (!isLiveOpen(line.host)) return seen.count('given up', true);
      for (const one of steps) {
        if (one.kind === 'want') want(line, one.slot, one.hz);
        else if (one.kind === 'key') line.key(one.slot, one.hz);
        else if (one.kind === 'carry') line.carry(one.bytes);
        else line.input({ kind: 'beat' });
      }
      // Time goes by: silences are noticed, and each second it is asked whether both have the same.
      for (let n = 0; n < 12 && isLiveOpen(line.host); n++) {
        line.settle(700);
        if (isLive(line.host)) line.input({ kind: 'beat' });
        line.settle(700);
        line.silence();
      }
      if (!isLiveOpen(line.host)) return seen.count('given up', true);
      expect(isLive(line.host)).toBe(true);
      expect(Buffer.compare(line.host.image, line.radio.memory)).toBe(0);
      expect(line.host.slot).toBe(line.radio.slot);
      expect(contentOf(line.radio)).toBeDefined();
      for (const kind of ['kept', 'changed', 'overtaken', 'turned'] as const)
        if (line.events.some((event) => event.kind === kind)) seen.count(kind, true);
      if (line.events.filter(({ kind }) => kind === 'live').length > 1) seen.count('read again', true);
      if (line.struck > 0) seen.count('spoilt', true);
    }),
    { numRuns: 200 },
  );
  for (const kind of ['kept', 'changed', 'overtaken', 'turned', 'read again', 'spoilt'])
    seen.expectTimes(kind, 5);
});
