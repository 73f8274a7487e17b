import { recordRule, type RecordFinding } from '../finding';

/** More talkgroups or lists than the radio has room for. */
export const tooMany = recordRule(
  'too-many',
  'more than the radio has room for',
  ['talkgroup', 'receiveList', 'scanList'],
  function* ({ plan, model: { digital, scanLists, name: model } }) {
    const over = (
      kind: 'talkgroup' | 'receiveList' | 'scanList',
      records: readonly { id: string }[],
      most: number,
      words: string,
    ): RecordFinding[] =>
      records.length > most
        ? [
            {
              ...{ kind, id: records[most]!.id, severity: 'caution' },
              text: `${records.length} ${words}, and the ${model} has room for ${most}: ${records.length - most} stay out.`,
            },
          ]
        : [];
    if (digital) {
      const { talkgroups, receiveLists, people } = digital;
      const words = people.where === 'talkgroups' ? 'talkgroups and people' : 'talkgroups';
      yield* over('talkgroup', plan.talkgroups, talkgroups.count, words);
      yield* over('receiveList', plan.receiveLists, receiveLists.count, 'receive lists');
    }
    if (scanLists) yield* over('scanList', plan.scanLists, scanLists.count, 'scan lists');
  },
);
