import type { ChannelId, Edit, NewChannel, PlainEdit, Plan, ZoneId } from '../plan';
import { leaveOver, placeWhatFits, type Wanted } from '../table';

/** What is done with a station whose pair of frequencies the plan has already, with other access, mode or name. */
export const DOUBLE_WAYS = ['both', 'take over', 'leave'] as const;
export type DoubleWay = (typeof DOUBLE_WAYS)[number];

/** A station to be placed: the channel that it becomes, and where the plan has it nearly. */
export interface ToPlace {
  channel: NewChannel;
  /** The days of a trip on which it is wanted, by number; none where there are no days. */
  days: readonly number[];
  double: { id: ChannelId; way: DoubleWay } | null;
}

/** What placing comes to. */
export interface StationPlacing {
  /** null where nothing is to be done. */
  edit: Edit | null;
  placed: number;
  /** How many channels of the plan take over what the station says. */
  changed: number;
  over: number;
}

/** The plain edits that an edit is made of. */
export const editsOf = (edit: Edit): PlainEdit[] => (edit.name === 'together' ? edit.edits : [edit]);

/** A plan as it is once channels have made room. */
export const without = (plan: Plan, going: ReadonlySet<ChannelId>): Plan => ({
  ...plan,
  channels: plan.channels.filter(({ id }) => !going.has(id)),
});

/** The stations that become channels of their own: all but those that the plan takes over or leaves. */
export const newOnes = (stations: readonly ToPlace[]): ToPlace[] =>
  stations.filter(({ double }) => double === null || double.way === 'both');

/**
 * Places stations as one edit: those that find no slot are left over; what the plan has nearly is doubled, taken over, or left; and each
 * day of a trip becomes a zone of its own, with the channels that are wanted on it in the order in which they are given. Channels that are
 * `going` make room for them, and wait left over.
 */
export function placeStations(
  whole: Plan,
  stations: readonly ToPlace[],
  wanted: Wanted,
  days: readonly { id: ZoneId; name: string }[],
  going: ReadonlySet<ChannelId> = new Set(),
): StationPlacing {
  const out = going.size > 0 ? editsOf(leaveOver(whole, going)) : [];
  const plan = going.size > 0 ? without(whole, going) : whole;
  const fresh = newOnes(stations);
  const taken = stations.flatMap(({ double, channel }) =>
    double?.way === 'take over' ? [{ id: double.id, channel }] : [],
  );
  const placing =
    fresh.length === 0
      ? null
      : placeWhatFits(
          plan,
          fresh.map(({ channel }) => channel),
          wanted,
        );
  const edits: PlainEdit[] = [...out];
  if (taken.length > 0)
    edits.push({
      name: 'change',
      changes: taken.map(({ id, channel: { access, mode, tx, source } }) => ({
        id,
        set: { access, mode, tx, txFixed: false, source },
      })),
    });
  if (placing) edits.push(...editsOf(placing.edit));
  const held = new Set<string>(
    edits.flatMap((edit) => (edit.name === 'place' ? edit.channels.map(({ id }) => id as string) : [])),
  );
  // What is overwritten in the same stroke has no slot any more.
  const gone = new Set<string>(
    edits.flatMap((edit) => (edit.name === 'remove' ? edit.ids.map((id) => id as string) : [])),
  );
  const memberOf = ({ channel, double }: ToPlace): ChannelId | null => {
    if (double && double.way !== 'both')
      return double.way === 'take over' && !gone.has(double.id) ? double.id : null;
    return held.has(channel.id) ? channel.id : null;
  };
  const zones = days
    .map(({ id, name }, day) => ({
      id,
      name,
      members: [
        ...new Set(
          stations
            .filter((station) => station.days.includes(day))
            .flatMap((station) => memberOf(station) ?? []),
        ),
      ],
    }))
    .filter(({ members }) => members.length > 0);
  if (zones.length > 0) edits.push({ name: 'put', kind: 'zone', records: zones, before: null });
  const [placed, over] = [placing?.placed ?? 0, placing?.over ?? 0];
  const said = [
    placed > 0 || taken.length === 0 ? `Place ${placed} channel${placed === 1 ? '' : 's'}` : '',
    taken.length > 0 ? `${placed > 0 ? 'take' : 'Take'} over ${taken.length}` : '',
    zones.length > 0 ? `${zones.length} day${zones.length === 1 ? '' : 's'}` : '',
    over > 0 ? `${over} left over` : '',
    going.size > 0 ? `${going.size} left over for them` : '',
  ].filter(Boolean);
  const [only] = edits;
  return {
    edit:
      only === undefined
        ? null
        : edits.length === 1
          ? only
          : { name: 'together', label: said.join(', '), edits },
    placed,
    changed: taken.length,
    over,
  };
}
