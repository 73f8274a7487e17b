import { formatFrequency, formatPower } from '../radio';
import type { FittedChannel, Model } from '../models';
import {
  abbreviationsOf,
  fitName,
  tellApart,
  type Abbreviations,
  type Channel,
  type ChannelId,
  type FittedName,
  type Plan,
} from '../plan';
import { canSend, obstacles, type Obstacle } from './obstacle';

/** Something that a model holds otherwise than the plan says. */
export interface FitChange {
  id: ChannelId;
  what: 'name' | 'power' | 'transmit' | 'access';
  /** In plain words: `Name shortened to ULLSMR`. */
  text: string;
  /** The radio's reason: `6 characters, capitals only`. */
  because: string;
}

/** A plan worked out for one model. */
export interface Fit {
  modelId: string;
  channels: (FittedChannel & { id: ChannelId })[];
  changes: FitChange[];
  /** Channels that the model cannot hold, with all that is in the way. */
  leftOut: { id: ChannelId; obstacles: Obstacle[] }[];
}

/** The model's power nearest to the wanted one; of two as near, the lower. Gives mW. */
export function nearestPower(wanted: number, model: Model): number {
  return model.powers
    .map((power) => power.milliwatts)
    .sort((a, b) => a - b)
    .reduce((best, next) => (Math.abs(next - wanted) < Math.abs(best - wanted) ? next : best));
}

const HOW: Record<FittedName['how'], string> = {
  whole: 'shown as',
  abbreviated: 'abbreviated to',
  vowels: 'shortened to',
  spaces: 'shortened to',
  cut: 'cut to',
};

/** The names that the model's display will show, in the order of the channels, with the short forms of their plan. */
export function fitNames(
  channels: readonly Pick<Channel, 'name' | 'fitted'>[],
  model: Model,
  abbreviations: Abbreviations,
): { text: string; how: FittedName['how']; byHand: boolean }[] {
  const fitted = channels.map((channel) => {
    const hand = channel.fitted[model.id];
    const name = fitName(hand ?? channel.name, model.names, abbreviations);
    return { ...name, byHand: hand !== undefined };
  });
  const apart = tellApart(fitted, model.names);
  return fitted.map((name, index) => ({ ...name, text: apart[index]! }));
}

/**
 * Works a plan out for a model: what it will hold, what had to change, what it cannot hold. Pure; a plan of a few
 * thousand channels takes milliseconds.
 */
export function fit(plan: Plan, model: Model): Fit {
  const result: Fit = { modelId: model.id, channels: [], changes: [], leftOut: [] };
  const held: Channel[] = [];
  for (const channel of plan.channels) {
    const inTheWay = obstacles(channel, model);
    if (inTheWay.length > 0) result.leftOut.push({ id: channel.id, obstacles: inTheWay });
    else held.push(channel);
  }
  const names = fitNames(held, model, abbreviationsOf(plan));
  for (const [index, channel] of held.entries()) {
    const name = names[index]!;
    const power = nearestPower(channel.power, model);
    const sends = canSend(channel, model);
    const { access } = channel;
    const change = (what: FitChange['what'], text: string, because: string) =>
      result.changes.push({ id: channel.id, what, text, because });
    if (!name.byHand && name.text.toLowerCase() !== channel.name.trim().toLowerCase())
      change(
        'name',
        name.text === ''
          ? `Shown by its frequency, ${formatFrequency(channel.rx)}`
          : `Name ${HOW[name.how]} ${name.text}`,
        name.text === ''
          ? 'This display has none of the letters of the name'
          : `${model.names.length} characters on this display`,
      );
    if (sends && power !== channel.power)
      change(
        'power',
        `${formatPower(channel.power)} becomes ${formatPower(power)}`,
        `This radio has ${model.powers.map((p) => formatPower(p.milliwatts)).join(' and ')}`,
      );
    if (channel.tx !== null && !sends)
      change('transmit', 'Held as listen only', `This radio cannot send on ${formatFrequency(channel.tx)}`);
    if (access.kind !== 'analogue')
      change('access', 'Access left out', `${channel.mode} has no colour code or NAC`);
    result.channels.push({
      id: channel.id,
      slot: channel.slot,
      name: name.text,
      rx: channel.rx,
      tx: sends ? channel.tx : null,
      send: access.kind === 'analogue' ? access.send : null,
      expect: access.kind === 'analogue' ? access.expect : null,
      mode: channel.mode,
      power,
      scan: channel.scan,
    });
  }
  return result;
}
