import { formatAccess, formatFrequency, isDigital, MODES, parseFrequency, parsePower, plain } from '../radio';
import { allocationsOf, type Rules } from '../radio';
import type { Channel } from '../plan';
import { SEVERITIES, type Severity } from '../check';
import { silentFor, type HeardByChannel } from '../heard';

/**
 * What a person asks the table to show, in words and facts: `ketterby 2 m -dmr stop`. Words are looked for in what stands in the
 * row; facts are what radio knows of it. A word in quotes is never a fact; a dash or `not` before either turns it round.
 */

/** What is known of a channel beside itself. */
export interface FactContext {
  rules: Rules;
  /** How grave what Check says of it is, every finding once. */
  severities: (channel: Channel) => readonly Severity[];
  /** True where a zone has it. */
  inZone: (channel: Channel) => boolean;
  heard: HeardByChannel;
  /** Ms since 1970. */
  now: number;
}

/** One thing that is asked for: a fact by its name, or words. */
export interface Wish {
  not: boolean;
  kind: 'fact' | 'words';
  /** The fact's name as it is shown, or the words. */
  text: string;
  holds: (channel: Channel, context: FactContext) => boolean;
}

type Test = Wish['holds'];

/** A fact that can be asked for: its name, other words for it, and what it says for people. */
export interface FactOffer {
  name: string;
  also: readonly string[];
  says: string;
  holds: Test;
}

const analogue = (channel: Channel) => (channel.access.kind === 'analogue' ? channel.access : null);
const squelchIs = (kind: 'tone' | 'code') => (channel: Channel) => {
  const access = analogue(channel);
  return access?.send?.kind === kind || access?.expect?.kind === kind;
};

/** Facts that do not depend on a region, in the order in which they are offered. */
const PLAIN: readonly FactOffer[] = [
  {
    name: 'listen only',
    also: ['listen', 'rx only', 'receive only'],
    says: 'never transmits',
    holds: ({ tx }) => tx === null,
  },
  {
    name: 'simplex',
    also: ['same'],
    says: 'sends where it receives',
    holds: ({ rx, tx }) => tx === rx,
  },
  {
    name: 'shifted',
    also: ['shift', 'duplex'],
    says: 'sends elsewhere than it receives',
    holds: ({ rx, tx }) => tx !== null && tx !== rx,
  },
  {
    name: 'split',
    also: [],
    says: 'transmit is a frequency of its own',
    holds: ({ txFixed, tx }) => tx !== null && txFixed,
  },
  {
    name: 'no tone',
    also: ['open'],
    says: 'analogue, opens without tone or code',
    holds: (channel) => {
      const access = analogue(channel);
      return !isDigital(channel.mode) && access !== null && !access.send && !access.expect;
    },
  },
  { name: 'tone', also: ['ctcss'], says: 'sends or expects a tone', holds: squelchIs('tone') },
  { name: 'code', also: ['dcs'], says: 'sends or expects a code', holds: squelchIs('code') },
  { name: 'digital', also: [], says: 'a digital mode', holds: ({ mode }) => isDigital(mode) },
  { name: 'analogue', also: ['analog'], says: 'an analogue mode', holds: ({ mode }) => !isDigital(mode) },
  { name: 'scanned', also: ['scan'], says: 'the scan takes it', holds: ({ scan }) => scan },
  {
    name: 'skipped',
    also: ['skip', 'no scan'],
    says: 'the scan passes it over',
    holds: ({ scan }) => !scan,
  },
  { name: 'never silent', also: ['always on'], says: 'stops a scan', holds: ({ alwaysOn }) => alwaysOn },
  { name: 'satellite', also: [], says: 'works a satellite', holds: ({ satellite }) => satellite === true },
  { name: 'no name', also: ['nameless'], says: 'has no name', holds: ({ name }) => name === '' },
  { name: 'noted', also: ['note'], says: 'has a note', holds: ({ note }) => note !== '' },
  {
    name: 'from a directory',
    also: ['directory'],
    says: 'was placed from a directory',
    holds: ({ source }) => source !== null,
  },
  {
    name: 'by hand',
    also: ['own'],
    says: 'was typed or pasted',
    holds: ({ source }) => source === null,
  },
  {
    name: 'no zone',
    also: ['unzoned'],
    says: 'is in no zone',
    holds: (channel, { inZone }) => !inZone(channel),
  },
  {
    name: 'heard',
    also: [],
    says: 'was heard on the air',
    holds: ({ id }, { heard }) => heard.has(id),
  },
  {
    name: 'never heard',
    also: ['unheard'],
    says: 'nobody has heard it yet',
    holds: ({ id }, { heard }) => !heard.has(id),
  },
  {
    name: 'found',
    also: ['finding', 'findings'],
    says: 'Check says something',
    holds: (channel, { severities }) => severities(channel).length > 0,
  },
  ...SEVERITIES.map((severity) => ({
    name: severity,
    also: [`${severity}s`],
    says: `Check has a ${severity}`,
    holds: (channel: Channel, { severities }: FactContext) => severities(channel).includes(severity),
  })),
];

const MODE_FACTS: readonly FactOffer[] = MODES.map((mode) => ({
  name: mode,
  also: [],
  says: `mode ${mode}`,
  holds: (channel) => channel.mode === mode,
}));

/** The bands of a region, lowest first; a channel is in the band in which it receives. */
export function bandFacts(rules: Rules): FactOffer[] {
  const byName = new Map<string, { from: number; to: number }[]>();
  for (const { band, from, to } of allocationsOf(rules))
    byName.set(band, [...(byName.get(band) ?? []), { from, to }]);
  return [...byName].map(([name, ranges]) => ({
    name,
    also: name.includes(' ') ? [name.replaceAll(' ', '')] : [],
    says: `receives in ${name}`,
    holds: ({ rx }) => ranges.some(({ from, to }) => rx >= from && rx <= to),
  }));
}

/** All facts that can be asked for where those rules hold. */
export const factsFor = (rules: Rules): FactOffer[] => [...bandFacts(rules), ...PLAIN, ...MODE_FACTS];

const SIGNS: Record<string, (a: number, b: number) => boolean> = {
  '<': (a, b) => a < b,
  '<=': (a, b) => a <= b,
  '>': (a, b) => a > b,
  '>=': (a, b) => a >= b,
  '=': (a, b) => a === b,
};

const HOUR_MS = 3600_000;
/** Hours, days, weeks, months of thirty days, years. */
const SPANS: Record<string, number> = {
  h: HOUR_MS,
  d: 24 * HOUR_MS,
  w: 7 * 24 * HOUR_MS,
  m: 30 * 24 * HOUR_MS,
  y: 365 * 24 * HOUR_MS,
};

/** A span of time such as `30d`, `8w`, `1y`, ms; null where it is none. */
export function parseSpan(text: string): number | null {
  const match = /^(\d{1,4})(h|d|w|m|y)$/.exec(text);
  return match ? Number(match[1]) * SPANS[match[2]!]! : null;
}

/** What can be held against a number: how it is read as it is typed, and what it is of a channel (null: it has none). */
const MEASURES: Record<
  string,
  {
    read: (text: string) => number | null;
    of: (channel: Channel, context: FactContext) => number | null;
  }
> = {
  // How long ago: `heard<30d` was heard within thirty days.
  heard: {
    read: parseSpan,
    of: ({ id }, { heard, now }) => silentFor(heard.get(id), now),
  },
  power: {
    read: (text) => numberOr(parsePower(text)),
    of: ({ power, tx }) => (tx === null ? null : power),
  },
  rx: { read: (text) => numberOr(parseFrequency(text)), of: ({ rx }) => rx },
  receive: { read: (text) => numberOr(parseFrequency(text)), of: ({ rx }) => rx },
  tx: { read: (text) => numberOr(parseFrequency(text)), of: ({ tx }) => tx },
  transmit: { read: (text) => numberOr(parseFrequency(text)), of: ({ tx }) => tx },
  slot: { read: (text) => (/^\d{1,4}$/.test(text) ? Number(text) : null), of: ({ slot }) => slot },
};

const numberOr = (read: { ok: true; value: number } | { ok: false }) => (read.ok ? read.value : null);

/** A measure with a sign and a number, such as `power>1W`; undefined where it is none. */
function measured(token: string): { text: string; holds: Test } | undefined {
  const match = /^([a-z]+)(<=|>=|<|>|=)(.+)$/.exec(token);
  const measure = match && Object.hasOwn(MEASURES, match[1]!) ? MEASURES[match[1]!] : undefined;
  const against = measure?.read(match![3]!) ?? null;
  if (!match || !measure || against === null) return undefined;
  const compare = SIGNS[match[2]!]!;
  return {
    text: token,
    holds: (channel, context) => {
      const value = measure.of(channel, context);
      return value !== null && compare(value, against);
    },
  };
}

/** What of a channel words are looked for in, in small letters. */
function searched(channel: Channel): string[] {
  const { source } = channel;
  return [
    channel.name,
    formatFrequency(channel.rx),
    channel.tx === null ? '' : formatFrequency(channel.tx),
    formatAccess(channel.access),
    source?.call ?? '',
    source?.place ?? '',
    channel.note,
    String(channel.slot),
    String(channel.slot).padStart(3, '0'),
    ...(channel.tags ?? []),
  ].map((text) => text.toLowerCase());
}

const wordsHold =
  (words: string): Test =>
  (channel) =>
    searched(channel).some((text) => text.includes(words));

/** The longest fact in words. */
const LONGEST = 3;

/** The tokens of a wish: what is in quotes is one, and is marked. */
function tokens(text: string): { text: string; quoted: boolean }[] {
  const found: { text: string; quoted: boolean }[] = [];
  for (const match of text.matchAll(/(-?)"([^"]*)"?|([^\s",;]+)/g)) {
    const quoted = match[2] !== undefined;
    const inside = quoted ? `${match[1]}${match[2]}` : match[3]!;
    if (inside.trim() !== '' && inside !== '-') found.push({ text: inside, quoted });
  }
  return found;
}

/**
 * Reads what was typed into the field over the table. Everything that is typed means something: what is no fact is words. `more` are
 * facts beside the usual ones, which go before them.
 *
 * @example readWishes('hill -dmr 2 m', { region: 'orrin' }).map(({ text }) => text) // ['hill', 'DMR', '2 m']
 */
export function readWishes(typed: string, rules: Rules, more: readonly FactOffer[] = []): Wish[] {
  const facts = new Map<string, FactOffer>();
  for (const fact of [...factsFor(rules), ...more])
    for (const word of [fact.name, ...fact.also]) facts.set(word.toLowerCase(), fact);
  // Not brought to one form as a whole: that would take quotes around all of it away.
  const parts = tokens(typed.toLowerCase());
  const wishes: Wish[] = [];
  for (let at = 0; at < parts.length;) {
    let not = false;
    if (!parts[at]!.quoted && parts[at]!.text === 'not' && at + 1 < parts.length) {
      not = true;
      at++;
    }
    const { text, quoted } = parts[at]!;
    const turned = /^-(?![\d.,]+$)./.test(text);
    if (turned) not = !not;
    const first = plain(turned ? text.slice(1) : text);
    if (quoted) {
      wishes.push({ not, kind: 'words', text: first, holds: wordsHold(first) });
      at++;
      continue;
    }
    let taken = 0;
    for (let length = Math.min(LONGEST, parts.length - at); length > 0 && taken === 0; length--) {
      const run = parts.slice(at, at + length);
      if (run.some((part) => part.quoted)) continue;
      const name = [first, ...run.slice(1).map((part) => plain(part.text))].join(' ');
      const fact = facts.get(name);
      if (!fact) continue;
      wishes.push({ not, kind: 'fact', text: fact.name, holds: fact.holds });
      taken = length;
    }
    if (taken > 0) {
      at += taken;
      continue;
    }
    const measure = measured(first);
    const tag = /^#(.+)$/.exec(first)?.[1];
    if (measure) wishes.push({ not, kind: 'fact', ...measure });
    else if (tag)
      wishes.push({
        not,
        kind: 'fact',
        text: `#${tag}`,
        holds: ({ tags = [] }) => tags.some((one) => one.toLowerCase().replaceAll(' ', '') === tag),
      });
    else wishes.push({ not, kind: 'words', text: first, holds: wordsHold(first) });
    at++;
  }
  return wishes;
}

/** The channels for which every wish holds, in their order. */
export const filterChannels = (
  channels: readonly Channel[],
  wishes: readonly Wish[],
  context: FactContext,
): readonly Channel[] =>
  wishes.length === 0
    ? channels
    : channels.filter((channel) => wishes.every(({ not, holds }) => holds(channel, context) !== not));
