import { recordRule } from '../finding';
import { removing } from '../record-mends';

/** A receive list that no channel has. */
export const receiveListUnused = recordRule(
  'receive-list-unused',
  'receive lists that no channel has',
  ['receiveList'],
  function* (context) {
    const { channels, receiveLists } = context.plan;
    const used = new Set<unknown>(channels.map((one) => one.receiveList));
    for (const { id, name } of receiveLists)
      if (!used.has(id))
        yield {
          ...{ kind: 'receiveList', id, severity: 'hint' },
          text: `No channel has the receive list “${name}”: it changes nothing.`,
          mends: () => [removing('receiveList', id, 'Remove the list')],
        };
  },
  ({ digital }) => digital !== undefined,
);
