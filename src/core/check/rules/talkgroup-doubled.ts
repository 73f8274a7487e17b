import type { Plan, PlainEdit, Talkgroup } from '../../plan';
import { remembered } from '../../remember';
import { recordRule } from '../finding';
import type { Mend } from '../finding.schema';

/** Talkgroups with the number of one before them, each with that one. */
export const doubledIn = remembered((talkgroups: Plan['talkgroups']) => {
  const doubled = new Map<Talkgroup, Talkgroup>();
  const first = {
    group: new Map<number, Talkgroup>(),
    private: new Map<number, Talkgroup>(),
    all: new Map<number, Talkgroup>(),
  };
  for (const group of talkgroups) {
    const other = first[group.call].get(group.number);
    if (other) doubled.set(group, other);
    else first[group.call].set(group.number, group);
  }
  return doubled;
});

/** The edit that makes one talkgroup of two that have the same number. */
export function merging(plan: Plan, gone: Talkgroup, stays: Talkgroup): Mend['edit'] {
  const edits: PlainEdit[] = [];
  const channels = plan.channels.filter(({ talkgroup }) => talkgroup === gone.id);
  if (channels.length > 0)
    edits.push({
      name: 'change',
      changes: channels.map(({ id }) => ({ id, set: { talkgroup: stays.id } })),
    });
  const lists = plan.receiveLists.filter(({ members }) => members.includes(gone.id));
  if (lists.length > 0)
    edits.push({
      name: 'change',
      kind: 'receiveList',
      changes: lists.map(({ id, members }) => ({
        id,
        set: {
          members: [...new Set(members.map((member) => (member === gone.id ? stays.id : member)))],
        },
      })),
    });
  edits.push({ name: 'remove', kind: 'talkgroup', ids: [gone.id] });
  return { name: 'together', label: `Make one of “${gone.name}” and “${stays.name}”`, edits };
}

/** Two talkgroups with one number. */
export const talkgroupDoubled = recordRule(
  'talkgroup-doubled',
  'talkgroups with one number',
  ['talkgroup'],
  function* ({ plan }) {
    for (const [group, other] of doubledIn(plan.talkgroups))
      yield {
        ...{ kind: 'talkgroup', id: group.id, severity: 'caution' },
        text: `“${group.name}” and “${other.name}” are one: both have the number ${group.number}.`,
        mends: () => [{ label: `Make one of them`, edit: merging(plan, group, other) }],
      };
  },
  ({ digital }) => digital !== undefined,
);
