import { MODE_TRAITS, onAnyStep, type Access, type Mode, type Squelch } from '../radio';
import { receiveBand, slotsOf, transmitBand, type Model } from '../models';
import type { Channel } from '../plan';

/** Why a model cannot hold a channel as it stands. Each keeps the channel out of the fit. */
export const OBSTACLES = [
  'slot',
  'home band',
  'receive range',
  'receive step',
  'transmit step',
  'mode',
  'access',
  'colour code',
] as const;
export type Obstacle = (typeof OBSTACLES)[number];

/** The analogue tones or codes of an access, those that are there. */
export function squelches(access: Access): Squelch[] {
  if (access.kind !== 'analogue') return [];
  return [access.send, access.expect].filter((squelch) => squelch !== null);
}

/** True where the model has that tone, or that code with that polarity. */
export function holdsSquelch(squelch: Squelch, model: Model): boolean {
  if (squelch.kind === 'tone') return model.tones.includes(squelch.tone);
  return model.codes.includes(squelch.code) && (model.invertedCodes || !squelch.inverted);
}

/** True where the model can send on the channel's transmit frequency, step aside. */
export function canSend(channel: Pick<Channel, 'tx'>, model: Model): boolean {
  return channel.tx !== null && transmitBand(model, channel.tx) !== undefined;
}

/** True where the model has the slot of that list. */
export function hasSlot({ list, slot }: Pick<Channel, 'list' | 'slot'>, model: Model): boolean {
  const slots = slotsOf(model, list);
  return slots !== undefined && slot >= slots.first && slot < slots.first + slots.count;
}

/** The band whose home channel a slot of a list of home channels holds; undefined for other lists. */
export function homeBand({ list, slot }: Pick<Channel, 'list' | 'slot'>, model: Model) {
  return model.lists[list]?.holds === 'home' ? model.bands[slot - 1] : undefined;
}

/**
 * The mode in which a model holds a channel: its own, or the nearest that does no harm: narrow instead of wide, and wide instead of
 * narrow where nothing is sent. Undefined where there is none.
 */
export function heldMode(channel: Pick<Channel, 'mode' | 'tx'>, model: Model): Mode | undefined {
  const { mode } = channel;
  if (model.modes.includes(mode)) return mode;
  if (mode === 'FM' && model.modes.includes('NFM')) return 'NFM';
  if (mode === 'NFM' && model.modes.includes('FM') && !canSend(channel, model)) return 'FM';
  return undefined;
}

/** Everything that keeps the channel out of a model; empty where it can be held. */
export function obstacles(
  channel: Pick<Channel, 'list' | 'slot' | 'rx' | 'tx' | 'mode' | 'access'>,
  model: Model,
): Obstacle[] {
  const found: Obstacle[] = [];
  if (!hasSlot(channel, model)) found.push('slot');
  if (!receiveBand(model, channel.rx)) found.push('receive range');
  else if (!onAnyStep(channel.rx, model.steps)) found.push('receive step');
  if (canSend(channel, model) && !onAnyStep(channel.tx!, model.steps)) found.push('transmit step');
  const home = homeBand(channel, model);
  if (home && (channel.rx < home.receive.from || channel.rx > home.receive.to)) found.push('home band');
  if (heldMode(channel, model) === undefined) found.push('mode');
  // A guessed one could open another repeater.
  if (model.digital && MODE_TRAITS[channel.mode].access === 'dmr' && channel.access.kind !== 'dmr')
    found.push('colour code');
  if (squelches(channel.access).some((squelch) => !holdsSquelch(squelch, model))) found.push('access');
  return found;
}
