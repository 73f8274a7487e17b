import {
  cellText,
  COLUMNS,
  FIELD_NAMES,
  onAirKey,
  type Channel,
  type ChannelId,
  type Column,
  type Edit,
  type PlainEdit,
  type Plan,
} from '../plan';
import type { Model } from '../models';
import { bearing, distanceKm, windName, type Access, type Point } from '../radio';
import { leaveOver, placeWhatFits, type Wanted } from '../table';
import { channelOf, isListenOnly, whyNot } from './choose';
import type { Entry } from './entry';
import { editsOf } from './placing';

/** What directories say now that is not as the plan has it. */
export const NEWS_KINDS = ['changed', 'moved', 'off the air', 'gone', 'new'] as const;
export type NewsKind = (typeof NEWS_KINDS)[number];

/** What a directory says of a station now: its entry, and whether it has it still. */
export interface Standing {
  source: string;
  entry: Entry;
  gone: boolean;
}

/** One station that is otherwise than the plan has it. */
export interface News {
  source: string;
  ref: string;
  /** The directory's own date of it: what was left is news again when that is another. */
  updated: string;
  kind: NewsKind;
  /** The channel that it is about; null for a station that the plan has not. */
  channel: ChannelId | null;
  name: string;
  /** What is otherwise, in words. */
  text: string;
  edit: Edit;
}

/** What was left, once looked at: a station as it was then said to be. */
export const leftKey = ({ source, ref, updated }: Pick<News, 'source' | 'ref' | 'updated'>): string =>
  `${source} ${ref} ${updated}`;

/** A place that lies farther off is another one, km: coordinates are written to a minute here and there. */
const MOVED_KM = 3;

/** Access as a directory can say it: what is sent. What is expected back is the operator's own, where the directory says nothing of it. */
/** What opens a station; of one that carries talkgroups in both time slots, in that of the channel. */
const accessOf = ({ access, groups }: Entry, own: Access): Access =>
  groups && access.kind === 'dmr' && own.kind === 'dmr' ? { ...access, timeSlot: own.timeSlot } : access;

function accessAgrees(own: Access, said: Access): boolean {
  const text = (access: Access) => cellText({ access } as Channel, 'access');
  if (own.kind !== 'analogue' || said.kind !== 'analogue' || said.expect !== null)
    return text(own) === text(said);
  return text({ ...own, expect: null }) === text(said);
}

/** What of a channel a directory says otherwise. Whoever only listens by choice goes on listening. */
function changesOf(channel: Channel, entry: Entry): Partial<Channel> {
  const tx = isListenOnly(entry) ? null : entry.input;
  return {
    ...(entry.output !== channel.rx && { rx: entry.output }),
    ...(channel.tx !== null && tx !== channel.tx && { tx, txFixed: false }),
    ...(!accessAgrees(channel.access, accessOf(entry, channel.access)) && {
      access: accessOf(entry, channel.access),
    }),
    ...(entry.mode !== channel.mode && !bothFm(entry.mode, channel.mode) && { mode: entry.mode }),
  };
}

/** Wide and narrow FM hear each other: which of them is the operator's choice. */
const bothFm = (a: string, b: string) => /^N?FM$/.test(a) && /^N?FM$/.test(b);

const SHOWN: readonly Column[] = COLUMNS.filter((column) => ['rx', 'tx', 'access', 'mode'].includes(column));

/** What a cell is in words, where its own notation is a sign: `=` and `x` in the column of what is sent, nothing in that of the access. */
const SIGNS: Readonly<Record<string, string>> = { '=': 'same', x: 'listen only', '': 'open' };

const inWords = (before: Channel, after: Channel): string[] =>
  SHOWN.flatMap((column) => {
    const [was, is] = [before, after].map((channel) => {
      const text = cellText(channel, column);
      return SIGNS[text] ?? text;
    });
    return was === is ? [] : [`${FIELD_NAMES[column]} ${was} → ${is}`];
  });

/** A change of one channel, named for the history. */
const changing = (id: ChannelId, set: Partial<Channel>): PlainEdit => {
  const { rx, tx, txFixed, access, mode, source } = set;
  return {
    name: 'change',
    changes: [
      {
        id,
        set: {
          ...(rx !== undefined && { rx }),
          ...(tx !== undefined && { tx, txFixed: txFixed ?? false }),
          ...(access && { access }),
          ...(mode && { mode }),
          ...(source !== undefined && { source }),
        },
      },
    ],
  };
};

function newsOfChannel(plan: Plan, channel: Channel, { source, entry, gone }: Standing): News | null {
  const about = { source, ref: entry.ref, updated: gone ? `${entry.updated} gone` : entry.updated };
  const item = { ...about, channel: channel.id, name: channel.name || entry.site };
  if (gone || !entry.onAir) {
    const kind = gone ? ('gone' as const) : ('off the air' as const);
    const text = gone ? 'the directory has it no longer' : 'is off the air';
    return { ...item, kind, text, edit: leaveOver(plan, new Set([channel.id])) };
  }
  const set = changesOf(channel, entry);
  const before: Point | null =
    channel.source?.lat !== undefined && channel.source.lon !== undefined
      ? { lat: channel.source.lat, lon: channel.source.lon }
      : null;
  const km = before ? distanceKm(before, entry) : 0;
  const moved = km > MOVED_KM;
  if (Object.keys(set).length === 0 && !moved) return null;
  const text = [
    ...inWords(channel, { ...channel, ...set }),
    ...(moved
      ? [
          `stands ${Math.round(km)} km ${windName(bearing(before!, entry))} of where it stood, at ${entry.site}`,
        ]
      : []),
  ].join(', ');
  const placed = moved
    ? { source: { ...channel.source!, place: entry.site, lat: entry.lat, lon: entry.lon } }
    : {};
  return {
    ...item,
    kind: moved ? 'moved' : 'changed',
    text,
    edit: changing(channel.id, { ...set, ...placed }),
  };
}

/** What is asked: what directories say now, where, since when, and what was left. */
export interface NewsContext {
  /** By source and reference. */
  standing: readonly Standing[];
  /** The circle in which new stations are of interest; null where nobody knows where the plan is used. */
  area: (Point & { km: number }) | null;
  /** Stations that a directory wrote before then are not new, ISO 8601. */
  since: string;
  left: ReadonlySet<string>;
  wanted: Wanted;
  makeId: () => ChannelId;
}

/**
 * Holds a plan against what directories say now: what is otherwise with the stations of its channels, what is off the air or gone, and
 * what is new nearby, each as an edit. What was left is not said again until the directory says something else.
 */
export function newsOf(plan: Plan, model: Model, context: NewsContext): News[] {
  const { standing, area, since, left, wanted, makeId: newId } = context;
  const byKey = new Map(standing.map((one) => [`${one.source} ${one.entry.ref}`, one]));
  const own = new Set<string>();
  const news = plan.channels.flatMap((channel): News[] => {
    if (!channel.source) return [];
    const key = `${channel.source.directory} ${channel.source.entry}`;
    own.add(key);
    const now = byKey.get(key);
    const found = now && newsOfChannel(plan, channel, now);
    return found ? [found] : [];
  });
  const there = new Set(plan.channels.map(onAirKey));
  const services = new Set(plan.channels.flatMap(({ source }) => source?.service ?? []));
  const fresh = !area
    ? []
    : standing.flatMap((one): News[] => {
        const { source, entry, gone } = one;
        if (gone || !entry.onAir || entry.encrypted || own.has(`${source} ${entry.ref}`)) return [];
        if (!(entry.updated.slice(0, 10) >= since.slice(0, 10)) || !services.has(entry.service)) return [];
        const km = distanceKm(area, entry);
        if (km > area.km || whyNot(entry, model) !== undefined) return [];
        const made = channelOf(entry, source, '{name}', plan.owner.region, model.powers[0]!.milliwatts);
        if (!made.ok || there.has(onAirKey(made.value))) return [];
        const text = `${cellText({ ...made.value, id: '' as ChannelId, list: 0, slot: 0 }, 'rx')}, ${Math.round(km)} km ${windName(bearing(area, entry))}`;
        const { edit } = placeWhatFits(plan, [{ ...made.value, id: newId() }], wanted);
        return [
          {
            source,
            ref: entry.ref,
            updated: entry.updated,
            kind: 'new',
            channel: null,
            name: entry.site,
            text,
            edit,
          },
        ];
      });
  return [...news, ...fresh].filter((one) => !left.has(leftKey(one)));
}

type ChannelChange = Extract<PlainEdit, { name: 'change'; kind?: 'channel' | undefined }>;
const isChannelChange = (edit: PlainEdit): edit is ChannelChange =>
  edit.name === 'change' && (edit.kind ?? 'channel') === 'channel';

/** All of the news as one edit; null where there is none. */
export function allNews(plan: Plan, news: readonly News[], wanted: Wanted): Edit | null {
  if (news.length === 0) return null;
  const edits = news.flatMap(({ edit }) => editsOf(edit));
  const changes = edits.filter(isChannelChange).flatMap((edit) => edit.changes);
  const going = new Set(
    news.flatMap(({ kind, channel }) =>
      channel !== null && (kind === 'off the air' || kind === 'gone') ? [channel] : [],
    ),
  );
  const fresh = edits.flatMap((edit) =>
    edit.name === 'place'
      ? edit.channels
      : edit.name === 'put' && edit.kind === 'leftOver'
        ? edit.records
        : [],
  );
  const added = fresh.filter(({ id }) => !going.has(id));
  const rest = { ...plan, channels: plan.channels.filter(({ id }) => !going.has(id)) };
  const all: PlainEdit[] = [
    ...(changes.length > 0 ? [{ name: 'change' as const, changes }] : []),
    ...(going.size > 0 ? editsOf(leaveOver(plan, going)) : []),
    ...(added.length > 0 ? editsOf(placeWhatFits(rest, added, wanted).edit) : []),
  ];
  return all.length === 1
    ? all[0]!
    : { name: 'together', label: `Take over ${news.length} news of the directories`, edits: all };
}
