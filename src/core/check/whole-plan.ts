import type { Model } from '../models';
import type { Plan } from '../plan';
import { GRADE_NAMES, GRADES, isDigital, NOT_STATED } from '../radio';
import type { BesideFinding } from './finding.schema';

/** What Check says of a plan as a whole. It is said first: what is said of the channels depends on it. */

/** The findings of a plan as a whole on a model: a grade that is not stated, an own ID that is not set. */
export function checkWhole(plan: Plan, model: Model): BesideFinding[] {
  const { id, owner, channels, settings } = plan;
  const found: BesideFinding[] = [];
  if (owner.grade === NOT_STATED && channels.some(({ tx }) => tx !== null))
    found.push({
      rule: 'grade-not-stated',
      severity: 'caution',
      kind: 'plan',
      id,
      text: 'Your licence grade is not stated: nothing warns you of what it does not permit.',
      mends: GRADES.map((grade) => ({
        label: GRADE_NAMES[grade],
        edit: { name: 'describe', set: { owner: { grade } } },
      })),
    });
  const ownId = model.digital && settings[model.id]?.[model.digital.ownId];
  if (
    model.digital &&
    !(typeof ownId === 'number' && ownId > 0) &&
    channels.some(({ tx, mode }) => tx !== null && isDigital(mode))
  )
    found.push({
      rule: 'digital-without-own-id',
      severity: 'caution',
      kind: 'plan',
      id,
      text: 'The radio’s own ID is not set: nobody sees who calls. Set it on the Bench, in the values of this unit.',
      mends: [],
    });
  return found;
}
