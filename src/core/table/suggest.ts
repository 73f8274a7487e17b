import {
  CODES,
  codeFigures,
  formatAccess,
  formatFrequency,
  formatPower,
  formatShift,
  formatTone,
  MODES,
  MODE_TRAITS,
  nearestOnSteps,
  nearestTone,
  onAnyStep,
  parseFrequency,
  plain,
  TONES,
  usualShift,
  type Rules,
} from '../radio';
import { abbreviationsOf, cellText, fitName, type Channel, type Column, type Plan } from '../plan';
import type { Model } from '../models';
import type { Neighbour } from '../check';

/** Something that a cell could hold: what is typed for it, and what it means. */
export interface Suggestion {
  text: string;
  says: string;
  /** False where this radio does not have it; it is offered last. */
  held: boolean;
}

/** What suggestions are made of. */
export interface SuggestContext {
  plan: Plan;
  model: Model;
  /** Repeaters that a directory knows nearby. */
  neighbours: readonly Neighbour[];
}

/** Most that are offered at once. */
const MOST = 8;

const held = (text: string, says: string): Suggestion => ({ text, says, held: true });

/** The stations that a directory knows on a channel's receive frequency. */
const stationsOn = (rx: number, neighbours: readonly Neighbour[]) =>
  neighbours.filter(({ output, id }) => output === rx && id === undefined);

function forReceive(
  typed: string,
  channel: Channel | null,
  { model, neighbours }: SuggestContext,
): Suggestion[] {
  const offers: Suggestion[] = [];
  const read = parseFrequency(
    typed,
    model.bands.map(({ receive }) => receive),
  );
  if (typed !== '' && read.ok && !onAnyStep(read.value, model.steps)) {
    const near = nearestOnSteps(read.value, model.steps);
    offers.push(held(formatFrequency(near), 'the nearest on this radio’s steps'));
  }
  const wanted = plain(typed);
  for (const { name, output, id } of neighbours) {
    if (id !== undefined || !formatFrequency(output).startsWith(wanted)) continue;
    offers.push(held(formatFrequency(output), `${name}, in the directory`));
  }
  return channel && typed === cellText(channel, 'rx') ? offers.slice(0, 3) : offers;
}

function forTransmit(channel: Channel, rules: Rules, { neighbours }: SuggestContext): Suggestion[] {
  const { rx } = channel;
  const usual = usualShift(rx, rules.region);
  return [
    ...stationsOn(rx, neighbours).map(({ name, input }) =>
      held(formatShift(input - rx), `${name} listens on ${formatFrequency(input)}`),
    ),
    ...(usual
      ? [
          held(
            formatShift(usual.shift),
            `the usual shift of ${usual.band} here: ${formatFrequency(rx + usual.shift)}`,
          ),
        ]
      : []),
    held('=', `sends where it receives, on ${formatFrequency(rx)}`),
    held('x', 'listen only'),
  ];
}

/** Tones and codes that begin as it is typed, with those beside the nearest one; the model's first. */
function forAccess(typed: string, channel: Channel, { model, neighbours }: SuggestContext): Suggestion[] {
  const wanted = plain(typed).toUpperCase();
  const offers: Suggestion[] = stationsOn(channel.rx, neighbours).flatMap(({ name, access }) =>
    access && begins(formatAccess(access), wanted)
      ? [held(formatAccess(access), `${name} wants it, by the directory`)]
      : [],
  );
  // What stands behind the slash is expected; what is typed goes on from there.
  const [before, last] = /^(.*\/)?([^/]*)$/.exec(wanted)!.slice(1) as [string | undefined, string];
  const head = before ?? '';
  const toneSays = (tone: number) =>
    head === ''
      ? model.tones.includes(tone)
        ? 'Hz, is sent'
        : 'Hz, not on this radio'
      : model.tones.includes(tone)
        ? 'Hz, is expected'
        : 'Hz, not on this radio';
  const codes = /^D?\d{0,3}[NI]?$/.test(last) && /^(D|0\d)/.test(last);
  if (codes)
    for (const code of CODES)
      for (const inverted of [false, true]) {
        const text = `D${codeFigures(code)}${inverted ? 'I' : 'N'}`;
        const has = model.codes.includes(code) && (model.invertedCodes || !inverted);
        if (text.startsWith(last.startsWith('D') ? last : `D${last}`))
          offers.push({ text: head + text, says: inverted ? 'code, inverted' : 'code', held: has });
      }
  else if (/^\d/.test(last)) {
    const number = Number(last.replace(',', '.'));
    const begins = TONES.filter((tone) => formatTone(tone).startsWith(last.replace(',', '.')));
    const nearest = TONES.indexOf(nearestTone(Math.round(number * 10)));
    // What is too low to be a tone yet is only being typed.
    const beside = number < 50 ? [] : TONES.slice(Math.max(0, nearest - 1), nearest + 2);
    for (const tone of [...begins, ...beside.filter((one) => !begins.includes(one))])
      offers.push({ text: head + formatTone(tone), says: toneSays(tone), held: model.tones.includes(tone) });
  } else if (last === '' && head === '') {
    offers.push(held('', 'open: no tone and no code'));
    if (model.modes.some((mode) => MODE_TRAITS[mode].access === 'dmr'))
      offers.push(held('CC1 TS1', 'colour code and time slot'));
  }
  return offers;
}

function forName(typed: string, channel: Channel | null, { plan, model }: SuggestContext): Suggestion[] {
  const source = channel?.source;
  const names = source
    ? [source.place, source.call, [source.call, source.place].filter(Boolean).join(' ')]
    : [];
  const shown = (name: string) => fitName(name, model.names, abbreviationsOf(plan)).text;
  return [
    ...(typed.trim() === '' ? [] : [held(typed, `reads ${shown(typed) || 'nothing'} on this radio`)]),
    ...names.flatMap((name) =>
      name && name !== typed ? [held(name, `reads ${shown(name)} on this radio`)] : [],
    ),
  ];
}

const begins = (text: string, typed: string) => text.toLowerCase().startsWith(typed.toLowerCase());

/**
 * What a cell could hold, as it is typed: what a directory says of the station first, then what is usual, what this radio has before
 * what it lacks. `channel` is null in the row of new ones. What stands in the cell already narrows nothing.
 */
export function suggestions(
  column: Exclude<Column, 'slot'>,
  typed: string,
  channel: Channel | null,
  context: SuggestContext,
): Suggestion[] {
  const { model, plan } = context;
  const untouched = channel !== null && typed === cellText(channel, column);
  const text = untouched ? '' : typed.trim();
  let offers: Suggestion[] = [];
  if (column === 'rx') offers = forReceive(text, channel, context);
  else if (column === 'name') offers = forName(typed.trim(), channel, context);
  else if (channel === null) return [];
  else if (column === 'tx')
    offers = forTransmit(channel, plan.owner, context).filter((one) => text === '' || begins(one.text, text));
  else if (column === 'access') offers = forAccess(text, channel, context);
  else if (column === 'mode')
    offers = [...model.modes, ...MODES.filter((mode) => !model.modes.includes(mode))]
      .filter((mode) => begins(mode, text))
      .map((mode) => ({
        text: mode,
        says: model.modes.includes(mode)
          ? MODE_TRAITS[mode].words
          : `${MODE_TRAITS[mode].words}, not on this radio`,
        held: model.modes.includes(mode),
      }));
  else if (column === 'power')
    offers = model.powers
      .filter(({ label, milliwatts }) => begins(label, text) || begins(formatPower(milliwatts), text))
      .map(({ label, milliwatts }) => held(formatPower(milliwatts), label));
  else
    offers = [held('yes', 'the scan takes it'), held('no', 'the scan passes it over')].filter((one) =>
      begins(one.text, text),
    );
  const known = new Set<string>();
  return [...offers.filter((one) => one.held), ...offers.filter((one) => !one.held)]
    .filter(({ text: one }) => !known.has(one) && known.add(one))
    .slice(0, MOST);
}
