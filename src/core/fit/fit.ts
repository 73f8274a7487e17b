import equal from 'fast-deep-equal';
import {
  formatFrequency,
  formatPower,
  formatShift,
  formatSquelch,
  hasTalkgroups,
  MODE_TRAITS,
} from '../radio';
import { noContent, storedShift, type Model } from '../models';
import {
  abbreviationsOf,
  fitName,
  tellApart,
  type Abbreviations,
  type Channel,
  type ChannelId,
  type FittedName,
  type Plan,
  type SettingValue,
} from '../plan';
import { remembered, rememberedAlong } from '../remember';
import { fitBesides } from './besides';
import {
  heldPoliteness,
  type Links,
  linksAlong,
  lostLinks,
  NOTHING_LINKED,
  numbersIn,
  politeOtherwise,
  sameLinks,
} from './digital';
import type { Fit, FitBeside, FitChange, FittedPlanChannel } from './fitted';
import { canSend, heldMode, obstacles } from './obstacle';
import { settingsWithNumbers } from './setting-records';

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
type Stage = (held: Held, channel: Channel, model: Model, settings: ModelSettings) => Held;

/** What a plan sets on radios of one model. */
type ModelSettings = Readonly<Record<string, SettingValue>>;

const changing = (
  { fitted, changes }: Held,
  set: Partial<Held['fitted']>,
  what: FitChange['what'],
  text: string,
  because: string,
): Held => ({ fitted: { ...fitted, ...set }, changes: [...changes, { id: fitted.id, what, text, because }] });

const power: Stage = (held, channel, model) => {
  if (!model.storesPower) {
    const set = { power: model.powers[0]!.milliwatts };
    if (!canSend(channel, model)) return { ...held, fitted: { ...held.fitted, ...set } };
    return changing(
      held,
      set,
      'power',
      `${formatPower(channel.power)} becomes whatever the set stands at`,
      'A memory of this radio knows no power',
    );
  }
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

const access: Stage = (held, channel, model) => {
  if (held.fitted.digital) return held;
  if (channel.access.kind !== 'analogue')
    return changing(held, {}, 'access', 'Access left out', `${channel.mode} has no colour code or NAC`);
  const { send, expect } = channel.access;
  const set = (to: Pick<Held['fitted'], 'send' | 'expect'>) => ({
    ...held,
    fitted: { ...held.fitted, ...to },
  });
  if (!model.oneTone || expect === null || equal(send, expect)) return set({ send, expect });
  const because = 'This radio has one tone for both ways';
  return send === null
    ? changing(held, { send: expect, expect }, 'access', `${formatSquelch(expect)} is sent too`, because)
    : changing(
        held,
        { send, expect: null },
        'access',
        `Sends ${formatSquelch(send)} and hears everything`,
        because,
      );
};

const mode: Stage = (held, channel, model) => {
  const used = heldMode(channel, model);
  return used === undefined || used === channel.mode
    ? held
    : changing(
        held,
        { mode: used },
        'mode',
        `${MODE_TRAITS[channel.mode].words} becomes ${MODE_TRAITS[used].words}`,
        `This radio has no ${MODE_TRAITS[channel.mode].words}`,
      );
};

/** Colour code, time slot and when it may send, on a radio that has them; what the channel refers to comes after. */
const digital: Stage = (held, channel, model) => {
  const { access } = channel;
  if (!model.digital || !hasTalkgroups(channel.mode) || access.kind !== 'dmr') return held;
  const { colourCode, timeSlot } = access;
  const way = heldPoliteness(channel, model.digital);
  const made = {
    ...held,
    fitted: { ...held.fitted, digital: { colourCode, timeSlot, talkgroup: null, receiveList: null, ...way } },
  };
  const otherwise = politeOtherwise(channel, way.politeness, model.digital);
  return otherwise ? changing(made, {}, 'digital', otherwise.text, otherwise.because) : made;
};

/** Where one shift is stored a band, any other is kept as a split. */
const shift: Stage = (held, _channel, model, settings) => {
  const { rx, tx } = held.fitted;
  if (model.storedShifts.length === 0 || tx === null || tx === rx) return held;
  const stored = storedShift(model, settings, rx);
  if (Math.abs(tx - rx) === stored) return held;
  return changing(
    held,
    { split: true },
    'shift',
    `${formatShift(tx - rx)} MHz kept as a split`,
    stored === undefined
      ? 'This radio stores no shift on that band'
      : `This radio stores one shift there: ${formatFrequency(stored)} MHz`,
  );
};

/** What is done to each channel by itself, in this order; names come after, since they depend on one another. */
const STAGES: readonly Stage[] = [power, transmit, digital, access, mode, shift];

/** How a model holds each channel, its name aside; or what is in the way. Worked out once for as long as the channel stays as it is. */
const heldBy = remembered((model: Model) =>
  remembered((settings: ModelSettings) => {
    const held = remembered((channel: Channel): Held | { leftOut: Fit['leftOut'][number] } => {
      const inTheWay = obstacles(channel, model);
      if (inTheWay.length > 0) return { leftOut: { id: channel.id, obstacles: inTheWay } };
      const { id, list, slot, rx, tx, scan } = channel;
      const fitted = {
        ...{ id, list, slot, rx, tx, send: null, expect: null },
        ...{ mode: channel.mode, power: channel.power, scan },
      };
      return STAGES.reduce<Held>((so, stage) => stage(so, channel, model, settings), { fitted, changes: [] });
    });
    return rememberedAlong(held);
  }),
);

const NO_SETTINGS: ModelSettings = {};

/** What a plan sets on radios of a model. */
const settingsFor = (plan: Plan, model: Model): ModelSettings => plan.settings[model.id] ?? NO_SETTINGS;

/** What is written of settings: those of the plan, and the shifts by which its channels were worked out. */
const settingsOf = (model: Model, set: ModelSettings) => ({
  ...Object.fromEntries(model.storedShifts.map(({ setting, usual }) => [setting, usual])),
  ...without(model, set),
});

/** Settings but those that this unit has not. */
const without = ({ unit }: Model, set: ModelSettings): ModelSettings =>
  unit && unit.without.length > 0
    ? Object.fromEntries(
        Object.entries(set).filter(([key]) => unit.without.every(({ setting }) => setting !== key)),
      )
    : set;

/** What a plan sets and this unit has not. */
const lacking = ({ unit }: Model, set: ModelSettings): FitBeside[] =>
  (unit?.without ?? [])
    .filter(({ setting }) => set[setting] !== undefined)
    .map(({ setting, name }) => ({
      kind: 'setting',
      id: setting,
      text: 'A setting stays as the radio has it',
      because: `${unit!.called} has no ${name}`,
    }));

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
  channels: readonly Pick<Channel, 'list' | 'name' | 'fitted'>[],
  model: Model,
  abbreviations: Abbreviations,
): ShownName[] {
  const fitted = namesAlone(model)(abbreviations)(channels);
  const apart = tellApartByList(channels, fitted, model);
  return fitted.map((name, index) => (name.text === apart[index] ? name : { ...name, text: apart[index]! }));
}

/** Names told apart within each list: the two sides of a radio have a line of the display each. */
function tellApartByList(
  channels: readonly Pick<Channel, 'list'>[],
  names: readonly ShownName[],
  model: Model,
): readonly string[] {
  if (model.lists.length === 1) return tellApart(names, model.names);
  const apart = new Array<string>(names.length);
  for (const list of model.lists.keys()) {
    const places = channels.flatMap((channel, at) => (channel.list === list ? [at] : []));
    const told = tellApart(
      places.map((at) => names[at]!),
      model.names,
    );
    for (const [n, at] of places.entries()) apart[at] = told[n]!;
  }
  return apart;
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
  links: Links;
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
  links: Links,
  lasts: WeakMap<Held, Named>,
): Named {
  const last = lasts.get(held);
  if (last?.text === name.text && sameLinks(last.links, links)) return last;
  const change = nameChange(channel, name, model);
  const fitted = { ...held.fitted, name: name.text };
  if (fitted.digital)
    fitted.digital = { ...fitted.digital, talkgroup: links.talkgroup, receiveList: links.receiveList };
  if (model.scanLists?.by === 'channel') fitted.scanList = links.scanList;
  const made = {
    text: name.text,
    links,
    channel: fitted,
    changes: [...(change ? [change] : []), ...held.changes, ...lostLinks(channel, links, model)],
  };
  lasts.set(held, made);
  return made;
}

/**
 * Works a plan out for a model: what it will hold, what had to change, what it cannot hold. Pure, and what did not change
 * since it was last asked is not worked out again.
 */
export function fit(plan: Plan, model: Model): Fit {
  const settings = settingsFor(plan, model);
  const written = settingsWithNumbers(plan, model, settingsOf(model, settings));
  const result: Fit = {
    modelId: model.id,
    ...noContent(),
    channels: [],
    settings: written.settings,
    changes: [],
    besides: [],
    leftOut: [],
  };
  const held = heldBy(model)(settings)(plan.channels);
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
  const numbers = model.digital || model.scanLists ? numbersIn(plan, model, abbreviationsOf(plan)) : null;
  const links = linksAlong(plan.channels, numbers);
  const shown: (string | undefined)[] = new Array<undefined>(held.length);
  for (let n = 0; n < channels.length; n++) {
    const at = places[n]!;
    const made = named(
      channels[n]!,
      held[at] as Held,
      names[n]!,
      model,
      links ? links[at]! : NOTHING_LINKED,
      lasts,
    );
    shown[at] = made.text;
    result.channels.push(made.channel);
    for (const change of made.changes) result.changes.push(change);
  }
  Object.assign(result, fitBesides(plan, model, result.channels));
  result.besides.push(...lacking(model, settings), ...written.besides);
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
