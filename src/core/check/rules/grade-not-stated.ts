import { GRADE_NAMES, GRADES, NOT_STATED } from '../../radio';
import { recordRule } from '../finding';

/** A licence grade that is not stated: nothing can be held against it. */
export const gradeNotStated = recordRule(
  'grade-not-stated',
  'a licence grade that is not stated',
  ['plan'],
  function* ({ plan: { id, owner, channels } }) {
    if (owner.grade === NOT_STATED && channels.some(({ tx }) => tx !== null))
      yield {
        ...{ kind: 'plan', id, severity: 'caution' },
        text: 'Your licence grade is not stated: nothing warns you of what it does not permit.',
        mends: () =>
          GRADES.map((grade) => ({
            label: GRADE_NAMES[grade],
            edit: { name: 'describe', set: { owner: { grade } } },
          })),
      };
  },
);
