import { nameOfPerson, peopleMemoryOf, peopleRoom } from '../../core/image';
import { bigEndian, blockFrame, blockLinkOf, crc32, numberIn, type BlockFrame } from '../../core/link';
import { LOW_BATTERY, NO, type Device, type Heard } from './device';

/** The memory of its own that a radio has for people: written whole over its link, and of no use while it is written in part. */
export interface PeopleSide {
  /** What was written last; empty where nothing was. */
  bytes: Uint8Array;
  /** A write that was begun and has not ended whole: kept through a pulled cable and a switched-off radio, so that it can go on. */
  write: PeopleWrite | null;
  /** Its line is at that write, not at one of the plan. */
  open: boolean;
}

export interface PeopleWrite {
  /** CRC-32 of what is to come, and its length. */
  sum: number;
  length: number;
  blocks: readonly (Uint8Array | null)[];
}

export const noPeople = (
  bytes: Uint8Array = new Uint8Array(0),
  write: PeopleWrite | null = null,
): PeopleSide => ({
  ...{ bytes, write },
  open: false,
});

/** True while nobody of those that were written is known: they are there in part. */
export const peopleHalf = ({ write }: PeopleSide): boolean =>
  write?.blocks.some((block) => block !== null) ?? false;

/** Who somebody is to the radio: by the people that it holds; undefined where they are in part, or nobody has that number. */
export const nameInRadio = (
  { people, model }: Pick<Device, 'people' | 'model'>,
  id: number,
): string | undefined =>
  !peopleMemoryOf(model) || peopleHalf(people) ? undefined : nameOfPerson(people.bytes, id, model);

const no = (address: number, reason: number) => blockFrame('no', address, [reason]);
const said = (device: Device, ...send: Uint8Array[]): Heard => ({ device, send });

/** What it answers to a command about people; undefined where that is none, or the command is about its plan. */
export function answerPeople(device: Device, { command, address, payload }: BlockFrame): Heard | undefined {
  const { model, people } = device;
  if (!peopleMemoryOf(model)) return undefined;
  switch (command) {
    case 'people':
      return said(
        device,
        blockFrame('counted', 0, [
          ...[peopleRoom(model), people.bytes.length, crc32(people.bytes)].flatMap((n) => bigEndian(n, 4)),
          peopleHalf(people) ? 1 : 0,
        ]),
      );
    case 'openPeople':
      return open(device, payload);
    case 'put':
      return people.open ? put(device, address, payload) : undefined;
    case 'close':
      return people.open ? close(device) : undefined;
    default:
      return undefined;
  }
}

function open(device: Device, payload: Uint8Array): Heard {
  const { model, people } = device;
  const length = payload.length === 8 ? numberIn(payload, 0, 4) : 0;
  if (length === 0 || length > peopleRoom(model)) return said(device, no(0, NO.length));
  if (device.battery < LOW_BATTERY) return said(device, no(0, NO.battery));
  if (device.refusesWriting) return said(device, no(0, NO.refused));
  const { blockBytes } = blockLinkOf(model);
  const sum = numberIn(payload, 4, 4);
  // The very write that broke off goes on where it was; any other begins anew.
  const write =
    people.write?.sum === sum && people.write.length === length
      ? people.write
      : { sum, length, blocks: Array.from({ length: Math.ceil(length / blockBytes) }, () => null) };
  const missing = write.blocks.indexOf(null);
  return said(
    { ...device, people: { ...people, write, open: true } },
    blockFrame('opened', missing < 0 ? length : missing * blockBytes),
  );
}

function put(device: Device, address: number, payload: Uint8Array): Heard {
  const { model, people } = device;
  const { write } = people;
  if (!write) return said(device, no(address, NO.refused));
  const { blockBytes } = blockLinkOf(model);
  const at = address / blockBytes;
  // The last may be shorter.
  const wanted = Math.min(blockBytes, write.length - address);
  if (!Number.isInteger(at) || at >= write.blocks.length || payload.length !== wanted)
    return said(device, no(address, NO.damaged));
  const blocks = write.blocks.with(at, payload);
  return said(
    { ...device, people: { ...people, write: { ...write, blocks } } },
    blockFrame('taken', address),
  );
}

function close(device: Device): Heard {
  const { people } = device;
  const { write } = people;
  // Said again, since the answer was lost: what was closed is closed.
  if (!write) return said(device, blockFrame('closed'));
  if (write.blocks.includes(null)) return said(device, no(0, NO.sum));
  const bytes = new Uint8Array(Buffer.concat(write.blocks as Uint8Array[]));
  if (crc32(bytes) !== write.sum) return said(device, no(0, NO.sum));
  return said({ ...device, people: { bytes, write: null, open: true } }, blockFrame('closed'));
}
