import { recordRule } from '../finding';
import { setSide } from '../record-mends';
import { memorySides } from '../set-up-sides';

/** A quick set-up that turns a side to no channel. */
export const setUpWithoutChannels = recordRule(
  'set-up-without-channels',
  'set-ups that turn a side to no channel',
  ['setUp'],
  function* (context) {
    const word = context.model.zones?.word ?? 'zone';
    for (const { setUp, at, name, zone, members } of memorySides(context))
      if (members.length === 0)
        yield {
          ...{ kind: 'setUp', id: setUp.id, severity: 'caution' },
          text: zone
            ? `Turns the ${name} side to the ${word} “${zone.name}”, which has no channel there: the display stays empty.`
            : `Turns the ${name} side to its channels, and it has none.`,
          mends: () => (zone ? [setSide(setUp, at, { zone: null }, 'Use all channels of the side')] : []),
        };
  },
  ({ setUps }) => setUps !== null,
);
