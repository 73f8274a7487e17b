import { onAnyStep, type Access, type Squelch } from '../radio';
import { receiveBand, transmitBand, type Model } from '../models';
import type { Channel } from '../plan';

/** Why a model cannot hold a channel as it stands. Each keeps the channel out of the fit. */
export const OBSTACLES = [
  'slot',
  'receive range',
  'receive step',
  'transmit step',
  'mode',
  'access',
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
export function hasSlot(
  { list, slot }: Pick<Channel, 'list' | 'slot'>,
  { slots: { first, count } }: Model,
): boolean {
  // No model has a second list yet.
  return list === 0 && slot >= first && slot < first + count;
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
  if (!model.modes.includes(channel.mode)) found.push('mode');
  if (squelches(channel.access).some((squelch) => !holdsSquelch(squelch, model))) found.push('access');
  return found;
}
