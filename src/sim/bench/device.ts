import {
  bytesOf,
  decodeImage,
  encodeImage,
  imageHolds,
  volatileAreas,
  type RadioContent,
} from '../../core/image';
import {
  imageSum,
  MOVED_ON,
  sumHolds,
  frameBytes,
  identBytes,
  NOTHING_PENDING,
  readFrames,
  WHOLE,
  type Frame,
  type Pending,
} from '../../core/link';
import { cableOf, slotsOf, type Model } from '../../core/models';
import type { LiveSide } from './device-live';
import { noPeople, type PeopleSide } from './device-people';
import { freshBlockSide, hearBlock, hearNoBlock, type BlockSide } from './device-block';

/** A radio's inside: memory and the state of its link. A value; `hear` gives the next. */
export interface Device {
  model: Model;
  serial: string;
  firmware: string;
  region: number;
  memory: Uint8Array;
  /** A write was begun and has not ended whole: the radio does nothing but answer its link. */
  halfWritten: boolean;
  /** Percent. */
  battery: number;
  /** The place that its knob stands at. */
  slot: number;
  refusesWriting: boolean;
  /** What it calls itself; differs from the model's where a fault says so. */
  identAs: string;
  link: {
    pending: Pending;
    writing: boolean;
    received: Uint8Array;
    taken: readonly boolean[];
    ended: boolean;
  };
  /** The same of a block link. */
  block: BlockSide;
  /** Its memory for people alone, where it has one. */
  people: PeopleSide;
  /** The same of a live link: null while it is not entered. */
  live: LiveSide | null;
}

/** What bytes come to: the radio as it is then, what it sends, and whether it then drops its line to go to another module. */
export interface Heard {
  device: Device;
  send: Uint8Array[];
  moves?: boolean | undefined;
}

export const LOW_BATTERY = 20;
export const NO = { damaged: 0, battery: 1, refused: 2, sum: 3, length: 4, movedOn: MOVED_ON };

/** A radio as it comes: whole, charged, with nothing under way. */
export const deviceOf = (
  { model, serial, firmware, region }: Pick<Device, 'model' | 'serial' | 'firmware' | 'region'>,
  memory: Uint8Array,
): Device => ({
  ...{ model, serial, firmware, region, memory },
  halfWritten: false,
  battery: 80,
  slot: model.slots.first,
  refusesWriting: false,
  identAs: model.link?.ident ?? '',
  link: freshLink(model),
  block: freshBlockSide(),
  people: noPeople(),
  live: null,
});

export function freshLink(model: Model): Device['link'] {
  // A radio without a link here has nothing under way.
  const blocks = model.link?.kind === 'stream' ? Math.ceil(bytesOf(model) / model.link.blockBytes) : 0;
  return {
    pending: NOTHING_PENDING,
    writing: false,
    received: new Uint8Array(bytesOf(model)),
    taken: Array.from({ length: blocks }, () => false),
    ended: false,
  };
}

const speaksBlocks = ({ model: { link } }: Device) => link?.kind === 'block' || link?.kind === 'live';

/** What the radio does with bytes from its cable: its next state and what it sends back. */
export function hear(before: Device, bytes: Uint8Array): Heard {
  if (speaksBlocks(before)) return hearBlock(before, bytes);
  const { frames, damaged, pending } = readFrames(before.link.pending, bytes);
  let device: Device = { ...before, link: { ...before.link, pending } };
  const send: Uint8Array[] = [];
  for (const frame of frames) {
    const answer = take(device, frame);
    device = answer.device;
    send.push(...answer.send);
  }
  // A damaged block has no number that can be trusted: name the first that has not arrived.
  if (damaged > 0 && device.link.writing) {
    const missing = device.link.taken.indexOf(false);
    if (missing >= 0) send.push(no(missing, NO.damaged));
  }
  return { device, send };
}

/** What the radio does when bytes stop coming in the middle of a frame: it gives that frame up. */
export function hearNothing(device: Device): Heard {
  if (speaksBlocks(device)) return hearNoBlock(device);
  const { pending } = device.link;
  if (pending.length === 0) return { device, send: [] };
  const emptied = { ...device, link: { ...device.link, pending: NOTHING_PENDING } };
  return hear(emptied, pending.slice(1));
}

const no = (sequence: number, reason: number) => frameBytes('no', sequence, Uint8Array.of(reason));

function take(device: Device, frame: Frame): { device: Device; send: Uint8Array[] } {
  const { model } = device;
  switch (frame.type) {
    case 'identify': {
      const ident = identBytes({
        model: device.identAs,
        serial: device.serial,
        firmware: device.firmware,
        region: device.region,
        imageBytes: bytesOf(model),
        halfWritten: device.halfWritten,
        battery: null,
        module: 0,
      });
      // What has come of the next frame already is kept.
      const link = { ...freshLink(model), pending: device.link.pending };
      return { device: { ...device, link }, send: [frameBytes('ident', 0, ident)] };
    }
    case 'read':
      return {
        device,
        send: blocks(
          device,
          device.link.taken.map((_, block) => block),
        ),
      };
    case 'again':
      return {
        device,
        send: blocks(
          device,
          [...frame.payload].filter((block) => block < device.link.taken.length),
        ),
      };
    case 'write':
      return openWrite(device, frame);
    case 'block':
      return device.link.writing ? takeBlock(device, frame) : { device, send: [] };
    case 'end':
      if (device.link.writing) return endWrite(device, frame);
      // Said again, since the answer was lost: the write that it ends is whole, and that is said again too.
      return device.link.ended && sumHolds(device.link.received, frame.payload)
        ? { device, send: [frameBytes('ack', WHOLE)] }
        : { device, send: [] };
    default:
      return { device, send: [] };
  }
}

function blocks({ memory, model }: Device, numbers: readonly number[]): Uint8Array[] {
  const size = cableOf(model).blockBytes;
  return [
    ...numbers.map((block) => frameBytes('block', block, memory.slice(block * size, (block + 1) * size))),
    frameBytes('end', 0, imageSum(memory)),
  ];
}

function openWrite(device: Device, { payload }: Frame) {
  if (((payload[0] ?? 0) << 8) + (payload[1] ?? 0) !== bytesOf(device.model))
    return { device, send: [no(0, NO.length)] };
  if (device.battery < LOW_BATTERY) return { device, send: [no(0, NO.battery)] };
  if (device.refusesWriting) return { device, send: [no(0, NO.refused)] };
  return {
    device: { ...device, link: { ...freshLink(device.model), pending: device.link.pending, writing: true } },
    send: [frameBytes('ready')],
  };
}

function takeBlock(device: Device, { sequence, payload }: Frame) {
  const { model, link } = device;
  const size = cableOf(model).blockBytes;
  // The last may be shorter: an image has any length.
  const wanted = Math.min(size, link.received.length - sequence * size);
  if (sequence >= link.taken.length || payload.length !== wanted)
    return { device, send: [no(sequence, NO.damaged)] };
  const received = link.received.slice();
  received.set(payload, sequence * size);
  const memory = device.memory.slice();
  memory.set(payload, sequence * size);
  return {
    device: {
      ...device,
      memory: keptOwn(device, memory),
      halfWritten: true,
      link: { ...link, received, taken: link.taken.with(sequence, true) },
    },
    send: [frameBytes('ack', sequence)],
  };
}

/** A memory to be, with what stays the radio's own, whatever is sent. */
export function keptOwn(device: Device, memory: Uint8Array): Uint8Array {
  for (const area of volatileAreas(device.model))
    memory.set(device.memory.subarray(area.from, area.from + area.bytes), area.from);
  return memory;
}

function endWrite(device: Device, { payload }: Frame) {
  const { link, model } = device;
  if (!link.taken.every(Boolean) || !sumHolds(link.received, payload) || !imageHolds(device.memory, model))
    return { device, send: [no(WHOLE, NO.sum)] };
  return {
    device: { ...counted(device, 2), halfWritten: false, link: { ...link, writing: false, ended: true } },
    send: [frameBytes('ack', WHOLE)],
  };
}

/** Adds one to a counter of two bytes in the volatile area. */
export function counted(device: Device, offset: number): Device {
  const area = volatileAreas(device.model)[0];
  if (!area) return device;
  const memory = device.memory.slice();
  const at = area.from + offset;
  const value = (memory[at]! + (memory[at + 1]! << 8) + 1) & 0xffff;
  memory.set([value & 0xff, value >> 8], at);
  return { ...device, memory };
}

/** What is left of its link when its line is gone: a write that broke off on a block link can go on, where it was. */
export const letGo = ({
  model,
  block,
  people,
}: Device): Pick<Device, 'link' | 'block' | 'people' | 'live'> => ({
  link: freshLink(model),
  block: freshBlockSide(block.writes, block.module),
  people: { ...people, open: false },
  live: null,
});

/** Switched on: the radio counts it and forgets what its link was at. */
export function powerUp(device: Device): Device {
  const { block, ...rest } = letGo(device);
  return { ...counted(device, 0), ...rest, block: { ...block, module: 0 } };
}

const decodedOnce = new WeakMap<Uint8Array, RadioContent | null>();

/** What the radio makes of its memory; undefined where it is half written or damaged. */
export function contentOf({ halfWritten, memory, model }: Device): RadioContent | undefined {
  if (halfWritten) return undefined;
  // Looked at several times a second; a memory that changes is another one.
  let content = decodedOnce.get(memory);
  if (content === undefined) {
    const decoded = decodeImage(memory, model);
    content = decoded.ok ? decoded.value : null;
    decodedOnce.set(memory, content);
  }
  return content ?? undefined;
}

/** What a person puts into a memory on the radio's own keys; a memory that is emptied has nothing. */
export interface Keyed {
  list: number;
  slot: number;
  name?: string | undefined;
  rx?: number | undefined;
  clear?: boolean | undefined;
}

/** The radio once somebody has put something into a memory on its keys; as it was where it has no such memory or content. */
export function keyed(device: Device, { list, slot, name, rx, clear }: Keyed): Device {
  const content = contentOf(device);
  const { model } = device;
  const range = slotsOf(model, list);
  if (!content || !range || slot < range.first || slot >= range.first + range.count) return device;
  const is = (channel: { list: number; slot: number }) => channel.list === list && channel.slot === slot;
  const others = content.channels.filter((channel) => !is(channel));
  const before = content.channels.find(is);
  const hz = rx ?? before?.rx;
  if (!clear && hz === undefined) return device;
  const channels = clear
    ? others
    : [
        ...others,
        {
          ...(before ?? {
            ...{ list, slot, name: '', send: null, expect: null, scan: true },
            ...{ mode: model.modes[0]!, power: model.powers[0]!.milliwatts },
          }),
          // As a dial does it: a frequency that is turned to is sent on too.
          ...{ rx: hz!, tx: rx === undefined && before ? before.tx : hz! },
          ...(name !== undefined && { name }),
        },
      ].sort((a, b) => a.list - b.list || a.slot - b.slot);
  return { ...device, memory: encodeImage({ ...content, channels }, device.memory, model) };
}
