import type {
  ChannelId,
  PlanId,
  RadioId,
  ReceiveListId,
  ScanEdgeId,
  ScanListId,
  SetUpId,
  SkipSetId,
  TalkgroupId,
  ZoneId,
} from './ids.schema';

const FIGURES = [...'abcdefghijklmnopqrstuvwxyz0123456789'].map((figure) => figure.charCodeAt(0));

/** An id's text from random bytes that the caller brings: `makeId('ch', crypto.getRandomValues(new Uint8Array(12)))`. */
export function makeId(prefix: 'ch', random: Uint8Array): ChannelId;

export function makeId(prefix: 'zn', random: Uint8Array): ZoneId;

export function makeId(prefix: 'rd', random: Uint8Array): RadioId;

export function makeId(prefix: 'pl', random: Uint8Array): PlanId;

export function makeId(prefix: 'sk', random: Uint8Array): SkipSetId;

export function makeId(prefix: 'se', random: Uint8Array): ScanEdgeId;

export function makeId(prefix: 'qs', random: Uint8Array): SetUpId;

export function makeId(prefix: 'tg', random: Uint8Array): TalkgroupId;

export function makeId(prefix: 'rl', random: Uint8Array): ReceiveListId;

export function makeId(prefix: 'sl', random: Uint8Array): ScanListId;

export function makeId(prefix: string, random: Uint8Array): string {
  const codes = new Array<number>(random.length);
  for (let at = 0; at < random.length; at++) codes[at] = FIGURES[random[at]! % FIGURES.length]!;
  return `${prefix}_${String.fromCharCode(...codes)}`;
}
