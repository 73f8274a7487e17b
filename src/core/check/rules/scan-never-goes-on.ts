import { recordRule } from '../finding';
import { called, setScanList } from '../record-mends';

/** A scan list with a station that never falls silent. */
export const scanNeverGoesOn = recordRule(
  'scan-never-goes-on',
  'scan lists with a station that never falls silent',
  ['scanList'],
  function* (context) {
    const { plan } = context;
    const loud = plan.channels.filter(({ alwaysOn }) => alwaysOn);
    for (const list of plan.scanLists)
      for (const channel of loud)
        if (list.members.includes(channel.id))
          yield {
            ...{ kind: 'scanList', id: list.id, severity: 'caution' },
            text: `The scan of “${list.name}” stops on “${called(channel)}” and stays: that station never falls silent.`,
            mends: () => [
              setScanList(`Take “${called(channel)}” out of the list`, list, {
                members: list.members.filter((id) => id !== channel.id),
              }),
            ],
          };
  },
  ({ scanLists }) => scanLists !== undefined,
);
