import { formatSquelch, isUsualShift, type Region } from '../radio';
import { ALL_CALL } from '../plan/talkgroup';
import type { Content } from './content.schema';
import { sidesOf } from './model';
import type { Model } from './model.schema';
import type { FittedChannel } from './fitted-channel.schema';

/** What the display reads. */
export interface Face {
  slot: string;
  /** Whom a digital channel calls, with colour code and time slot: `Isles  CC1 TS2`. */
  called: string;
  /** The side, where the radio has two: `Left`. */
  side: string;
  /** The mode, where the radio has others than FM. */
  mode: string;
  marks: string[];
  large: string;
  small: string;
  /** The mark of the shift's direction; with its size in MHz where the shift is a plain one. */
  shift: string;
  sending: boolean;
  /** The radio refuses the key: listen only, nowhere that it can send, or nobody to call. */
  refused: boolean;
}

export type LargeLine = 'name' | 'frequency' | 'slot';

/** Figures of a frequency as a display with so many decimals cuts them. */
function figures(hz: number, decimals: number): string {
  const whole = Math.floor(hz / 1_000_000);
  return `${whole}.${String(hz % 1_000_000)
    .padStart(6, '0')
    .slice(0, decimals)}`;
}

/**
 * What a model's display reads for a channel, receiving or with the key down. `region` decides which shifts the
 * radio shows as a plain one: all others are marked as split.
 */
export function face(
  channel: FittedChannel,
  model: Model,
  keyDown: boolean,
  region: Region,
  largeLine: LargeLine = model.face.largeLine.fallback,
  /** The bank that the side is turned to, as the display has it. */
  bank = '',
  /** The name of the talkgroup that it calls. */
  talkgroup = '',
): Face {
  const { marks: texts, decimals } = model.face;
  const slot = model.face.slot.replace(/\{slot:(\d)\}/, (_, width) =>
    String(channel.slot).padStart(Number(width), '0'),
  );
  const refused = sendsNothing(channel);
  const sending = keyDown && !refused;
  const hz = sending ? channel.tx! : channel.rx;
  const lowest = model.powers[model.powers.length - 1]!.milliwatts;
  const isCode = channel.send?.kind === 'code' || channel.expect?.kind === 'code';
  const tone = isCode ? texts.code : channel.expect ? texts.bothTones : channel.send ? texts.sendTone : '';
  const marks = [
    sending ? texts.sending : '',
    keyDown && refused ? texts.noTransmit : '',
    tone,
    channel.mode === 'NFM' ? texts.narrow : '',
    bank,
    model.storesPower && channel.power === lowest && model.powers.length > 1 && !refused
      ? texts.lowPower
      : '',
    channel.scan ? '' : texts.skipped,
  ].filter((mark) => mark !== '');
  const frequency = figures(hz, decimals);
  const name = channel.name || frequency;
  const large = sending || largeLine === 'frequency' ? frequency : largeLine === 'slot' ? slot : name;
  return {
    slot,
    called: calledText(channel, talkgroup),
    side: sidesOf(model).length > 1 ? (model.lists[channel.list]?.name ?? '') : '',
    mode: model.modes.some((mode) => mode !== 'FM' && mode !== 'NFM') ? channel.mode : '',
    marks,
    large,
    small: large === frequency ? name : frequency,
    shift: shiftMark(channel, model, region),
    sending,
    refused: keyDown && refused,
  };
}

/** True where the key puts nothing on air: listen only, or a digital channel that calls nobody. */
const sendsNothing = ({ tx, digital }: FittedChannel): boolean =>
  tx === null || (digital !== undefined && digital.talkgroup === null);

function calledText({ digital }: FittedChannel, talkgroup: string): string {
  if (!digital) return '';
  const open = `CC${digital.colourCode} TS${digital.timeSlot}`;
  return talkgroup ? `${talkgroup}  ${open}` : open;
}

function shiftMark({ rx, tx, split }: FittedChannel, model: Model, region: Region): string {
  const { marks } = model.face;
  if (tx === null || tx === rx) return '';
  // Where a radio stores one shift a band, that is the plain one; elsewhere the one that is usual in the region.
  const plain = model.storedShifts.length > 0 ? !split : isUsualShift(rx, tx, region);
  if (!plain) return marks.split;
  return `${tx > rx ? marks.plus : marks.minus}${figures(Math.abs(tx - rx), 3)}`;
}

/** What the large line of a side shows, as a radio that is set like that has it. */
export function largeLineOf(
  model: Model,
  list: number,
  settings: Readonly<Record<string, unknown>>,
): LargeLine {
  const { setting, second, fallback } = model.face.largeLine;
  const set = settings[(list % 2 === 1 && second) || setting];
  return set === 'name' || set === 'frequency' || set === 'slot' ? set : fallback;
}

/** What a press of the key puts on air, in one sentence. */
export function onAir(
  channel: FittedChannel,
  model?: Pick<Model, 'storesPower'>,
  /** The name of the talkgroup that it calls. */
  talkgroup = '',
): string {
  if (channel.tx === null) return 'Listen only: the key sends nothing.';
  const { send, digital } = channel;
  if (sendsNothing(channel)) return 'Calls nobody: the key sends nothing.';
  const to = digital && talkgroup ? ` to ${talkgroup}` : '';
  const open = digital ? `, CC${digital.colourCode} TS${digital.timeSlot}` : '';
  const with_ = send ? ` with ${formatSquelch(send)}${send.kind === 'tone' ? ' Hz' : ''}` : '';
  const power = model && !model.storesPower ? 'with the power it stands at' : `${channel.power / 1000} W`;
  return `Sends${to} on ${figures(channel.tx, 5).replace(/0{1,2}$/, '')}${with_}${open}, ${power}.`;
}

/** A call on the air: who calls, and whom, by their numbers. */
export interface CallOnAir {
  from: number;
  to: number;
}

/**
 * What the display of a radio reads when somebody calls while it stands at a channel: the name of who calls, where it has that, or else
 * the ID; null where its squelch stays shut, since it neither calls that talkgroup nor has it in its receive list.
 */
export function callShown(
  channel: FittedChannel,
  { talkgroups, receiveLists }: Pick<Content, 'talkgroups' | 'receiveLists'>,
  { from, to }: CallOnAir,
  ownId: number | null,
  /** Who has a number among people that lie in a memory of their own. */
  nameOf: (id: number) => string | undefined = () => undefined,
): string | null {
  const { digital } = channel;
  if (!digital) return null;
  const heard = [
    digital.talkgroup,
    ...(receiveLists.find(({ number }) => number === digital.receiveList)?.members ?? []),
  ];
  const opens =
    to === ALL_CALL ||
    to === ownId ||
    talkgroups.some(
      ({ number, address, call }) => call === 'group' && address === to && heard.includes(number),
    );
  if (!opens) return null;
  const who = talkgroups.find(({ address, call }) => call === 'private' && address === from);
  return who?.name || nameOf(from) || String(from);
}
