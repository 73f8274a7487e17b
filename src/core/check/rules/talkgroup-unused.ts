import type { Plan } from '../../plan';
import { remembered } from '../../remember';
import { recordRule } from '../finding';
import { removing } from '../record-mends';
import { doubledIn } from './talkgroup-doubled';

/** The talkgroups that some receive list has. */
const listedIn = remembered(
  (lists: Plan['receiveLists']) => new Set<unknown>(lists.flatMap(({ members }) => members)),
);

/** A talkgroup that no channel calls. Of people nothing is said, and of one that is there twice something else. */
export const talkgroupUnused = recordRule(
  'talkgroup-unused',
  'talkgroups that no channel calls',
  ['talkgroup'],
  function* ({ plan: { channels, talkgroups, receiveLists } }) {
    const called = new Set<unknown>(channels.map((one) => one.talkgroup));
    const listed = listedIn(receiveLists);
    const doubled = doubledIn(talkgroups);
    for (const group of talkgroups) {
      const { id, name, call } = group;
      if (call !== 'group' || called.has(id) || doubled.has(group)) continue;
      yield {
        ...{ kind: 'talkgroup', id, severity: 'hint' },
        text: listed.has(id)
          ? `No channel calls “${name}”: it is heard, and cannot be answered on its own talkgroup.`
          : `No channel calls “${name}” and no receive list has it: it takes room and does nothing.`,
        mends: () => (listed.has(id) ? [] : [removing('talkgroup', id, 'Remove it')]),
      };
    }
  },
  ({ digital }) => digital !== undefined,
);
