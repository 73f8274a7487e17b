import { recordRule } from '../finding';
import { removing } from '../record-mends';

/** A scan list without a channel. */
export const scanListEmpty = recordRule(
  'scan-list-empty',
  'scan lists without a channel',
  ['scanList'],
  function* (context) {
    for (const { id, name, members } of context.plan.scanLists)
      if (members.length === 0)
        yield {
          ...{ kind: 'scanList', id, severity: 'caution' },
          text: `“${name}” has no channel: its scan hears nothing.`,
          mends: () => [removing('scanList', id, 'Remove the list')],
        };
  },
  ({ scanLists }) => scanLists !== undefined,
);
