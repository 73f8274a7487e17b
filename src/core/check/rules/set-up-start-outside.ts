import { recordRule } from '../finding';
import { addToZone, channelOf, setSide } from '../record-mends';
import { memorySides, startsOutside } from '../set-up-sides';

/** A quick set-up that begins on a channel outside of its zone. */
export const setUpStartOutside = recordRule(
  'set-up-start-outside',
  'set-ups that begin outside their zone',
  ['setUp'],
  function* (context) {
    const { plan, model, held } = context;
    const word = model.zones?.word ?? 'zone';
    for (const { setUp, at, list, side, zone, members } of memorySides(context)) {
      if (members.length === 0 || !startsOutside(side, zone)) continue;
      const [start, first] = [channelOf(plan, side.start!), channelOf(plan, members[0]!)!];
      yield {
        ...{ kind: 'setUp', id: setUp.id, severity: 'caution' },
        text: `Begins on “${start?.name ?? ''}”, which the ${word} “${zone.name}” does not hold: one turn of the knob and it is gone.`,
        mends: () => [
          setSide(setUp, at, { start: first.id }, `Begin on “${first.name}”`),
          ...(start && held.get(start.id)?.list === list ? [addToZone(zone, start, word)] : []),
        ],
      };
    }
  },
  ({ setUps }) => setUps !== null,
);
