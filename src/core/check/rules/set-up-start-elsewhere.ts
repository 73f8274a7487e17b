import { recordRule } from '../finding';
import { setSide } from '../record-mends';
import { memorySides, startsOutside } from '../set-up-sides';

/** A quick set-up that begins on a channel of another side. */
export const setUpStartElsewhere = recordRule(
  'set-up-start-elsewhere',
  'set-ups that begin on a channel of another side',
  ['setUp'],
  function* (context) {
    for (const { setUp, at, list, side, name, zone, members } of memorySides(context)) {
      if (members.length === 0 || startsOutside(side, zone) || side.start === null) continue;
      if (context.held.get(side.start)?.list !== list)
        yield {
          ...{ kind: 'setUp', id: setUp.id, severity: 'caution' },
          text: `Begins on a channel that the ${name} side does not have: it begins on its first.`,
          mends: () => [setSide(setUp, at, { start: null }, 'Begin on its first channel')],
        };
    }
  },
  ({ setUps }) => setUps !== null,
);
