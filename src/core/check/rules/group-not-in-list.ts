import type { Channel, Plan, ReceiveList } from '../../plan';
import { hasTalkgroups } from '../../radio';
import { remembered, rememberedAlong } from '../../remember';
import { recordRule } from '../finding';
import { called } from '../record-mends';

const groupsById = remembered(
  (talkgroups: Plan['talkgroups']) => new Map(talkgroups.map((group) => [group.id, group])),
);
const membersOf = remembered((list: ReceiveList) => new Set(list.members));

/** The talkgroup that a channel calls and the receive list that it has, where that does not have it; null where it does. */
const missingFor = remembered((talkgroups: Plan['talkgroups']) =>
  remembered((receiveLists: Plan['receiveLists']) => {
    const groups = groupsById(talkgroups);
    const lists = new Map(receiveLists.map((list) => [list.id, list]));
    return rememberedAlong((channel: Channel) => {
      if (!hasTalkgroups(channel.mode) || !channel.talkgroup || !channel.receiveList) return null;
      const group = groups.get(channel.talkgroup);
      const list = lists.get(channel.receiveList);
      return !group || !list || group.call !== 'group' || membersOf(list).has(group.id)
        ? null
        : { group, list };
    });
  }),
);

/** A channel that calls a talkgroup which its own receive list does not have. */
export const groupNotInList = recordRule(
  'group-not-in-list',
  'talkgroups that are called and not in the receive list',
  ['channel', 'receiveList'],
  function* ({ plan }) {
    for (const [at, gap] of missingFor(plan.talkgroups)(plan.receiveLists)(plan.channels).entries()) {
      if (!gap) continue;
      const { group, list } = gap;
      const channel = plan.channels[at]!;
      yield {
        ...{ kind: 'channel', id: channel.id, field: 'access', severity: 'hint' },
        text: `“${called(channel)}” calls “${group.name}”, which its receive list “${list.name}” does not have: what comes back may not be heard.`,
        mends: () => [
          {
            label: `Put “${group.name}” into “${list.name}”`,
            edit: {
              name: 'change',
              kind: 'receiveList',
              changes: [{ id: list.id, set: { members: [...list.members, group.id] } }],
            },
          },
        ],
      };
    }
  },
  ({ digital }) => digital !== undefined,
);
