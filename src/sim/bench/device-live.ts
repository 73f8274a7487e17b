import { imageHolds } from '../../core/image';
import {
  applyStretches,
  bigEndian,
  blockFrame,
  crc32,
  changeFrames,
  differing,
  nextPart,
  NOWHERE,
  numberIn,
  SUM_AT,
  SUM_BYTES,
  type BlockFrame,
  type Coming,
} from '../../core/link';
import { keptOwn, NO, type Device, type Heard } from './device';

/** The radio's side of a live link. */
export interface LiveSide {
  /** Parts of a change whose last has not come. */
  coming: Coming | null;
  /** The change that took effect last, 0 where none has; sent again it is answered again. */
  last: number;
}

const standsAt = ({ slot }: Device) => bigEndian(slot ?? NOWHERE, 2);
const sumOf = ({ memory }: Device) => bigEndian(crc32(memory), SUM_BYTES);

/** What the radio does with a frame of a live link; undefined where it is none, or none that this radio knows. */
export function answerLive(device: Device, { command, payload }: BlockFrame): Heard | undefined {
  if (device.model.link?.kind !== 'live') return undefined;
  switch (command) {
    case 'live':
      return {
        device: { ...device, live: { coming: null, last: 0 } },
        send: [blockFrame('lively', 0, [...sumOf(device), ...standsAt(device)])],
      };
    case 'beat':
      return { device, send: [blockFrame('beats', 0, [...sumOf(device), ...standsAt(device)])] };
    case 'set':
      return device.live ? set(device, device.live, payload) : undefined;
    default:
      return undefined;
  }
}

function set(device: Device, live: LiveSide, payload: Uint8Array): Heard {
  const { memory, model } = device;
  const [number = 0, of = 1, place = 0] = payload;
  const isLast = place === of - 1;
  const said = (now: Device, ...send: Uint8Array[]): Heard => ({ device: now, send });
  // Said again, since the answer was lost.
  if (number === live.last) return said(device, ...(isLast ? [blockFrame('isSet', 0, [number])] : []));
  const no = (reason: number) =>
    said({ ...device, live: { ...live, coming: null } }, ...(isLast ? [blockFrame('no', 0, [reason])] : []));
  if (device.refusesWriting) return no(NO.refused);
  if (payload.length < SUM_AT + SUM_BYTES) return no(NO.length);
  // Made on what it has, or not taken: something was done on its keys meanwhile.
  if (numberIn(payload, SUM_AT, SUM_BYTES) !== crc32(memory)) return no(NO.movedOn);
  const coming = nextPart(live.coming, payload, memory.length);
  if (!coming) return no(NO.damaged);
  if (!isLast) return said({ ...device, live: { ...live, coming } });
  const next = keptOwn(device, applyStretches(memory, coming.stretches));
  if (!imageHolds(next, model)) return no(NO.sum);
  return said(
    { ...device, memory: next, live: { coming: null, last: number } },
    blockFrame('isSet', 0, [number]),
  );
}

/** What the radio says by itself of what was done on its keys and knob; nothing while no live link is entered. */
export function newsOf(before: Device, after: Device): Uint8Array[] {
  if (!after.live) return [];
  const stretches = before.memory === after.memory ? [] : differing(before.memory, after.memory);
  return [
    ...(stretches.length > 0 ? changeFrames('changed', 0, before.memory, stretches) : []),
    ...(before.slot === after.slot ? [] : [blockFrame('turned', 0, standsAt(after))]),
  ];
}
