import type { ReceiveList, ScanList } from '../../plan';
import { recordRule, type RecordFinding } from '../finding';
import type { Mend } from '../finding.schema';

const normal = ({ name }: { name: string }) => name.trim().toLowerCase();

function* alike(
  kind: 'receiveList' | 'scanList',
  lists: readonly (ReceiveList | ScanList)[],
  words: string,
): Generator<RecordFinding> {
  const seen = new Set<string>();
  const names = new Set(lists.map(normal));
  for (const list of lists) {
    const key = normal(list);
    if (!seen.has(key)) {
      seen.add(key);
      continue;
    }
    let n = 2;
    while (names.has(`${key} ${n}`)) n++;
    const other = `${list.name.trim().slice(0, 28)} ${n}`;
    const edit = { name: 'change', kind, changes: [{ id: list.id, set: { name: other } }] } as Mend['edit'];
    yield {
      ...{ kind, id: list.id, severity: 'caution' },
      text: `Two ${words} are called “${list.name}”: on the radio nobody can tell which is which.`,
      mends: () => [{ label: `Call this one “${other}”`, edit }],
    };
  }
}

/** Two lists of a kind with one name. */
export const alikeInName = recordRule(
  'alike-in-name',
  'lists with one name',
  ['receiveList', 'scanList'],
  function* ({ plan, model }) {
    if (model.digital) yield* alike('receiveList', plan.receiveLists, 'receive lists');
    if (model.scanLists) yield* alike('scanList', plan.scanLists, 'scan lists');
  },
);
