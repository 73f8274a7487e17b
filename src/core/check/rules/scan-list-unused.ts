import { recordRule } from '../finding';
import { removing, setChannels } from '../record-mends';

/** A scan list that no channel or zone has, by which the radio goes. */
export const scanListUnused = recordRule(
  'scan-list-unused',
  'scan lists that nobody has',
  ['scanList'],
  function* (context) {
    const { plan, model } = context;
    const { by } = model.scanLists!;
    const used = new Set<unknown>(
      by === 'channel' ? plan.channels.map((one) => one.scanList) : plan.zones.map((one) => one.scanList),
    );
    const word = by === 'channel' ? 'channel' : (model.zones?.word ?? 'zone');
    for (const { id, name, members } of plan.scanLists) {
      if (used.has(id)) continue;
      const many = members.length === 1 ? 'channel is' : `${members.length} channels are`;
      yield {
        ...{ kind: 'scanList', id, severity: 'caution' },
        text: `Nobody scans “${name}”: no ${word} has it, so that its ${many} never looked at.`,
        mends: () => [
          ...(by === 'channel' && members.length > 0
            ? [
                setChannels(
                  'Give it to its own channels',
                  plan.channels.filter((channel) => members.includes(channel.id)),
                  { scanList: id },
                ),
              ]
            : []),
          removing('scanList', id, 'Remove the list'),
        ],
      };
    }
  },
  ({ scanLists }) => scanLists !== undefined,
);
