import { homeListOf } from '../../models';
import { recordRule } from '../finding';
import { setSide } from '../record-mends';
import { setUpSides } from '../set-up-sides';

/** A quick set-up that calls a home channel that is not set. */
export const setUpWithoutHome = recordRule(
  'set-up-without-home',
  'set-ups that call a home channel that is not set',
  ['setUp'],
  function* (context) {
    const { model, held } = context;
    for (const { setUp, at, list, side, name } of setUpSides(context)) {
      if (side?.begins !== 'home') continue;
      const home = homeListOf(model, list);
      if (home !== undefined && [...held.values()].some((place) => place.list === home)) continue;
      yield {
        ...{ kind: 'setUp', id: setUp.id, severity: 'caution' },
        text: `Calls the home channel of the ${name} side, and none is set: the side stays where it was.`,
        mends: () => [setSide(setUp, at, { begins: 'memory' }, 'Begin on a channel instead')],
      };
    }
  },
  ({ setUps }) => setUps !== null,
);
