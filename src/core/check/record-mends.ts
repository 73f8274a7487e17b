import type { Channel, Plan, ScanList, SetUp, SetUpSide, Zone } from '../plan';
import type { Mend } from './finding.schema';

/** Ways out that several rules of records offer. */

/** A channel as a sentence calls it. */
export const called = ({ name, rx }: Channel) => name || `${rx / 1e6} MHz`;

export const removing = (
  kind: 'talkgroup' | 'receiveList' | 'scanList',
  id: string,
  label: string,
): Mend => ({
  label,
  edit: { name: 'remove', kind, ids: [id] } as Mend['edit'],
});

export const setChannels = (
  label: string,
  channels: readonly Channel[],
  set: Pick<Partial<Channel>, 'scanList' | 'receiveList' | 'talkgroup'>,
): Mend => ({
  label,
  edit: { name: 'change', changes: channels.map(({ id }) => ({ id, set })) },
});

export const setScanList = (label: string, list: ScanList, set: Partial<Omit<ScanList, 'id'>>): Mend => ({
  label,
  edit: { name: 'change', kind: 'scanList', changes: [{ id: list.id, set }] },
});

/** A quick set-up with one of its sides otherwise. */
export const setSide = (setUp: SetUp, side: number, set: Partial<SetUpSide>, label: string): Mend => ({
  label,
  edit: {
    name: 'change',
    kind: 'setUp',
    changes: [
      {
        id: setUp.id,
        set: { sides: setUp.sides.map((one, at) => (at === side ? { ...one, ...set } : one)) },
      },
    ],
  },
});

export const addToZone = (zone: Zone, channel: Channel, word: string): Mend => ({
  label: `Put “${channel.name}” into the ${word} “${zone.name}”`,
  edit: {
    name: 'change',
    kind: 'zone',
    changes: [{ id: zone.id, set: { members: [...zone.members, channel.id] } }],
  },
});

/** The channels of a plan by their ids. */
export const channelOf = (plan: Plan, id: string): Channel | undefined =>
  plan.channels.find((channel) => channel.id === id);
