import { recordRule } from '../finding';
import { setSide } from '../record-mends';
import { setUpSides } from '../set-up-sides';

/** A quick set-up that leaves a side on its dial, where its channels look lost. */
export const setUpOnDial = recordRule(
  'set-up-on-dial',
  'set-ups that leave a side on its dial',
  ['setUp'],
  function* (context) {
    for (const { setUp, at, side, name, on } of setUpSides(context)) {
      if ((side && side.begins !== 'dial') || on.length === 0) continue;
      const look =
        on.length === 1
          ? 'its channel will look lost. It is'
          : `its ${on.length} channels will look lost. They are`;
      yield {
        ...{ kind: 'setUp', id: setUp.id, severity: 'caution' },
        text: `Leaves the ${name} side on its dial: ${look} there: press the memory key.`,
        mends: () =>
          side ? [setSide(setUp, at, { begins: 'memory' }, `Begin on a channel of the ${name} side`)] : [],
      };
    }
  },
  ({ setUps }) => setUps !== null,
);
