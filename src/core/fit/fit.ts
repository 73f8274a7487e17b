import { formatFrequency, formatPower } from '../radio';
import type { Model } from '../models';
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
import { remembered, rememberedAlong } from '../remember';
import type { Fit, FitChange, FittedPlanChannel } from './fitted';
import { canSend, obstacles } from './obstacle';

/** The model's power nearest to the wanted one; of two as near, the lower. Gives mW. */
export function nearestPower(wanted: number, model: Model): number {
  return model.powers
    .map((power) => power.milliwatts)
    .sort((a, b) => a - b)
    .reduce((best, next) => (Math.abs(next - wanted) < Math.abs(best - wanted) ? next : best));
}

/** What a stage makes of a channel: how the model holds it so far, and what had to change for that. */
interface Held {
  fitted: Omit<FittedPlanChannel, 'name'>;
  changes: FitChange[];
}
type Stage = (held: Held, channel: Channel, model: Model) => Held;

const changing = (
  { fitted, changes }: Held,
  set: Partial<Held['fitted']>,
  what: FitChange['what'],
  text: string,
  because: string,
): Held => ({ fitted: { ...fitted, ...set }, changes: [...changes, { id: fitted.id, what, text, because }] });

const power: Stage = (held, channel, model) => {
  const nearest = nearestPower(channel.power, model);
  if (nearest === channel.power) return held;
  // Of a channel that sends nothing nobody wants to know.
  if (!canSend(channel, model)) return { ...held, fitted: { ...held.fitted, power: nearest } };
  return changing(
    held,
    { power: nearest },
    'power',
    `${formatPower(channel.power)} becomes ${formatPower(nearest)}`,
    `This radio has ${model.powers.map((p) => formatPower(p.milliwatts)).join(' and ')}`,
  );
};

const transmit: Stage = (held, channel, model) =>
  channel.tx === null || canSend(channel, model)
    ? held
    : changing(
        held,
        { tx: null },
        'tx',
        'Held as listen only',
        `This radio cannot send on ${formatFrequency(channel.tx)}`,
      );

const access: Stage = (held, channel) =>
  channel.access.kind === 'analogue'
    ? { ...held, fitted: { ...held.fitted, send: channel.access.send, expect: channel.access.expect } }
    : changing(held, {}, 'access', 'Access left out', `${channel.mode} has no colour code or NAC`);

/** What is done to each channel by itself, in this order; names come after, since they depend on one another. */
const STAGES: readonly Stage[] = [power, transmit, access];

/** How a model holds each channel, its name aside; or what is in the way. Worked out once for as long as the channel stays as it is. */
const heldBy = remembered((model: Model) => {
  const held = remembered((channel: Channel): Held | { leftOut: Fit['leftOut'][number] } => {
    const inTheWay = obstacles(channel, model);
    if (inTheWay.length > 0) return { leftOut: { id: channel.id, obstacles: inTheWay } };
    const { id, slot, rx, tx, mode, scan } = channel;
    const fitted = { id, slot, rx, tx, send: null, expect: null, mode, power: channel.power, scan };
    return STAGES.reduce<Held>((so, stage) => stage(so, channel, model), { fitted, changes: [] });
  });
  return rememberedAlong(held);
});

const HOW: Record<FittedName['how'], string> = {
  whole: 'shown as',
  abbreviated: 'abbreviated to',
  vowels: 'shortened to',
  spaces: 'shortened to',
  cut: 'cut to',
};

interface ShownName {
  readonly text: string;
  readonly how: FittedName['how'];
  readonly byHand: boolean;
}

/** The name of a channel as the model's display shows it where no other comes out alike, with the short forms of its plan. */
export const nameAlone = remembered((model: Model) =>
  remembered((abbreviations: Abbreviations) =>
    remembered((channel: Pick<Channel, 'name' | 'fitted'>): ShownName => {
      const hand = channel.fitted[model.id];
      const { text, how } = fitName(hand ?? channel.name, model.names, abbreviations);
      return { text, how, byHand: hand !== undefined };
    }),
  ),
);

const namesAlone = remembered((model: Model) =>
  remembered((abbreviations: Abbreviations) => rememberedAlong(nameAlone(model)(abbreviations))),
);

/** The names that the model's display will show, in the order of the channels, with the short forms of their plan. */
export function fitNames(
  channels: readonly Pick<Channel, 'name' | 'fitted'>[],
  model: Model,
  abbreviations: Abbreviations,
): ShownName[] {
  const fitted = namesAlone(model)(abbreviations)(channels);
  const apart = tellApart(fitted, model.names);
  return fitted.map((name, index) => (name.text === apart[index] ? name : { ...name, text: apart[index]! }));
}

function nameChange(channel: Channel, { text, how, byHand }: ShownName, model: Model): FitChange | undefined {
  if (byHand || text.toLowerCase() === channel.name.trim().toLowerCase()) return undefined;
  const { id } = channel;
  return text === ''
    ? {
        id,
        what: 'name',
        text: `Shown by its frequency, ${formatFrequency(channel.rx)}`,
        because: 'This display has none of the letters of the name',
      }
    : {
        id,
        what: 'name',
        text: `Name ${HOW[how]} ${text}`,
        because: `${model.names.length} characters on this display`,
      };
}

interface Named {
  text: string;
  channel: FittedPlanChannel;
  changes: FitChange[];
}
/** The last that came of a channel with its name: most names are the same as the time before. */
const lastNamed = remembered((_model: Model) => new WeakMap<Held, Named>());

function named(
  channel: Channel,
  held: Held,
  name: ShownName,
  model: Model,
  lasts: WeakMap<Held, Named>,
): Named {
  const last = lasts.get(held);
  if (last?.text === name.text) return last;
  const change = nameChange(channel, name, model);
  const made = {
    text: name.text,
    channel: { ...held.fitted, name: name.text },
    changes: change ? [change, ...held.changes] : held.changes,
  };
  lasts.set(held, made);
  return made;
}

/**
 * Works a plan out for a model: what it will hold, what had to change, what it cannot hold. Pure, and what did not change
 * since it was last asked is not worked out again.
 */
export function fit(plan: Plan, model: Model): Fit {
  const result: Fit = { modelId: model.id, channels: [], changes: [], leftOut: [] };
  const held = heldBy(model)(plan.channels);
  const channels: Channel[] = [];
  const places: number[] = [];
  for (let at = 0; at < held.length; at++) {
    const one = held[at]!;
    if ('leftOut' in one) result.leftOut.push(one.leftOut);
    else {
      channels.push(plan.channels[at]!);
      places.push(at);
    }
  }
  const names = fitNames(channels, model, abbreviationsOf(plan));
  const lasts = lastNamed(model);
  const shown: (string | undefined)[] = new Array<undefined>(held.length);
  for (let n = 0; n < channels.length; n++) {
    const at = places[n]!;
    const made = named(channels[n]!, held[at] as Held, names[n]!, model, lasts);
    shown[at] = made.text;
    result.channels.push(made.channel);
    for (const change of made.changes) result.changes.push(change);
  }
  shownIn.set(result, shown);
  return result;
}

const shownIn = new WeakMap<Fit, readonly (string | undefined)[]>();

/** What the display reads in a fit of this plan, by the place of the channel; undefined for those that the model cannot hold. */
export function shownNames(fitted: Fit, plan: Plan): readonly (string | undefined)[] {
  const known = shownIn.get(fitted);
  if (known) return known;
  // A fit that came over a wire.
  const names = new Map<ChannelId, string>(fitted.channels.map(({ id, name }) => [id, name]));
  return plan.channels.map(({ id }) => names.get(id));
}
