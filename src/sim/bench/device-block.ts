import { bytesOf, imageHolds } from '../../core/image';
import {
  blockFrame,
  blockIdentBytes,
  blockLinkOf,
  bigEndian,
  crc32,
  giveUpBlockFrame,
  moduleStretch,
  NOTHING_PENDING,
  numberIn,
  readBlockFrames,
  type BlockFrame,
  type Pending,
  type Scanned,
} from '../../core/link';
import { answerLive } from './device-live';
import { answerPeople } from './device-people';
import { counted, keptOwn, LOW_BATTERY, NO, type Device, type Heard } from './device';

/** A write of a module: kept through a pulled cable and a switched-off radio until the whole radio is written, so that it can go on. */
export interface OpenWrite {
  /** CRC-32 of what is to come. */
  sum: number;
  received: Uint8Array;
  taken: readonly boolean[];
}

/** The radio's side of a block link. */
export interface BlockSide {
  pending: Pending;
  /** The module that its line reaches. */
  module: number;
  /** What has come for each module since the radio was whole. */
  writes: readonly (OpenWrite | null)[];
}

export const freshBlockSide = (writes: BlockSide['writes'] = [], module = 0): BlockSide => ({
  pending: NOTHING_PENDING,
  module,
  writes,
});

const writeOf = ({ block }: Device): OpenWrite | null => block.writes[block.module] ?? null;
const withWrite = ({ block, model }: Device, write: OpenWrite): BlockSide => ({
  ...block,
  writes: blockLinkOf(model).modules.map((_, at) =>
    at === block.module ? write : (block.writes[at] ?? null),
  ),
});

/** What the radio does with bytes from its cable. */
export const hearBlock = (before: Device, bytes: Uint8Array): Heard =>
  answerAll(before, readBlockFrames(before.block.pending, bytes));

/** What the radio does when bytes stop coming in the middle of a frame. */
export const hearNoBlock = (before: Device): Heard =>
  before.block.pending.length === 0
    ? { device: before, send: [] }
    : answerAll(before, giveUpBlockFrame(before.block.pending));

function answerAll(before: Device, { frames, damaged, pending }: Scanned<BlockFrame>): Heard {
  let heard: Heard = { device: { ...before, block: { ...before.block, pending } }, send: [] };
  for (const frame of frames) {
    const next = answerPeople(heard.device, frame) ?? answer(heard.device, frame);
    heard = { device: next.device, send: [...heard.send, ...next.send], moves: next.moves ?? heard.moves };
  }
  if (damaged === 0) return heard;
  const { people } = heard.device;
  const missing = people.open
    ? (people.write?.blocks.indexOf(null) ?? -1)
    : (writeOf(heard.device)?.taken.indexOf(false) ?? -1);
  // A damaged block has no address that can be trusted: the first that has not arrived is named.
  if (missing >= 0) heard.send.push(no(missing * blockLinkOf(before.model).blockBytes, NO.damaged));
  return heard;
}

const no = (address: number, reason: number) => blockFrame('no', address, [reason]);
const said = (device: Device, ...send: Uint8Array[]): Heard => ({ device, send });

function answer(device: Device, { command, address, payload }: BlockFrame): Heard {
  const { model, block } = device;
  const { from, bytes } = moduleStretch(model, block.module);
  const within = (length: number) => length > 0 && address + length <= bytes;
  switch (command) {
    case 'hello':
      return said(
        device,
        blockFrame(
          'here',
          0,
          blockIdentBytes({
            model: device.identAs,
            serial: device.serial,
            firmware: device.firmware,
            region: device.region,
            imageBytes: bytesOf(model),
            halfWritten: device.halfWritten,
            battery: onMains(model) ? null : device.battery,
            module: block.module,
          }),
        ),
      );
    case 'module':
      if (address >= blockLinkOf(model).modules.length) return said(device, no(address, NO.length));
      // The line goes, and comes back as that of the other module.
      return {
        ...said({ ...device, block: { ...block, module: address } }, blockFrame('moving', address)),
        moves: true,
      };
    case 'give': {
      const length = payload.length === 2 ? numberIn(payload, 0, 2) : 0;
      if (!within(length)) return said(device, no(address, NO.length));
      const at = from + address;
      return said(device, blockFrame('given', address, device.memory.subarray(at, at + length)));
    }
    case 'sum': {
      const length = payload.length === 4 ? numberIn(payload, 0, 4) : 0;
      if (!within(length)) return said(device, no(address, NO.length));
      const at = from + address;
      return said(
        device,
        blockFrame('summed', address, bigEndian(crc32(device.memory.subarray(at, at + length)), 4)),
      );
    }
    case 'open':
      return openWrite(device, payload, bytes);
    case 'put':
      return put(device, address, payload);
    case 'close':
      return close(device);
    default:
      return answerLive(device, { command, address, payload }) ?? said(device);
  }
}

export const onMains = ({ link }: Device['model']) => link?.kind === 'live' && link.mains;

function openWrite(device: Device, payload: Uint8Array, bytes: number): Heard {
  const { model } = device;
  if (payload.length !== 8 || numberIn(payload, 0, 4) !== bytes) return said(device, no(0, NO.length));
  if (!onMains(model) && device.battery < LOW_BATTERY) return said(device, no(0, NO.battery));
  if (device.refusesWriting) return said(device, no(0, NO.refused));
  const { blockBytes } = blockLinkOf(model);
  const sum = numberIn(payload, 4, 4);
  // The very write that broke off goes on where it was; any other begins anew.
  const before = writeOf(device);
  const write =
    before?.sum === sum
      ? before
      : {
          sum,
          received: new Uint8Array(bytes),
          taken: Array.from({ length: Math.ceil(bytes / blockBytes) }, () => false),
        };
  const missing = write.taken.indexOf(false);
  const there = missing < 0 ? bytes : missing * blockBytes;
  return said(
    { ...device, people: { ...device.people, open: false }, block: withWrite(device, write) },
    blockFrame('opened', there),
  );
}

function put(device: Device, address: number, payload: Uint8Array): Heard {
  const { block, model } = device;
  const write = writeOf(device);
  if (!write) return said(device, no(address, NO.refused));
  const { blockBytes } = blockLinkOf(model);
  const at = address / blockBytes;
  // The last may be shorter.
  const wanted = Math.min(blockBytes, write.received.length - address);
  if (!Number.isInteger(at) || at >= write.taken.length || payload.length !== wanted)
    return said(device, no(address, NO.damaged));
  const received = write.received.slice();
  received.set(payload, address);
  const memory = device.memory.slice();
  memory.set(payload, moduleStretch(model, block.module).from + address);
  return said(
    {
      ...device,
      memory: keptOwn(device, memory),
      halfWritten: true,
      block: withWrite(device, { ...write, received, taken: write.taken.with(at, true) }),
    },
    blockFrame('taken', address),
  );
}

function close(device: Device): Heard {
  const { block, model } = device;
  const write = writeOf(device);
  const holds = imageHolds(device.memory, model);
  // Said again, since the answer was lost: what was closed is closed.
  if (!write) return said(device, device.halfWritten ? no(0, NO.sum) : blockFrame('closed'));
  if (!write.taken.every(Boolean) || crc32(write.received) !== write.sum || (isLast(device) && !holds))
    return said(device, no(0, NO.sum));
  // Whole again with its last module: what came for its modules is done with.
  const whole = { ...device, halfWritten: false, block: { ...block, writes: [] } };
  return said(isLast(device) ? counted(whole, 2) : device, blockFrame('closed'));
}

const isLast = ({ block, model }: Device) => block.module === blockLinkOf(model).modules.length - 1;
