import { isDigital } from '../../radio';
import { recordRule } from '../finding';

/** An own ID that is not set, in a plan whose digital channels send. */
export const digitalWithoutOwnId = recordRule(
  'digital-without-own-id',
  'an own ID that is not set',
  ['plan'],
  function* ({ plan: { id, channels, settings }, model }) {
    const ownId = settings[model.id]?.[model.digital!.ownId];
    if (typeof ownId === 'number' && ownId > 0) return;
    if (channels.some(({ tx, mode }) => tx !== null && isDigital(mode)))
      yield {
        ...{ kind: 'plan', id, severity: 'caution' },
        text: 'The radio’s own ID is not set: nobody sees who calls. Set it on the Bench, in the values of this unit.',
      };
  },
  ({ digital }) => digital !== undefined,
);
