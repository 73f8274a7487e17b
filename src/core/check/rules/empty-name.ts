import { formatFrequency } from '../../radio';
import type { PlanRule } from '../finding';

/** A channel without a name, or with none that the display can write. */
export const emptyName: PlanRule = {
  id: 'empty-name',
  looksFor: 'channels without a name',
  about: ['channel'],
  find: ({ plan, shown }) => {
    return plan.channels.flatMap((channel) =>
      channel.name !== '' && shown.get(channel.id) !== ''
        ? []
        : [
            {
              id: channel.id,
              severity: 'hint' as const,
              field: 'name' as const,
              text:
                channel.name === ''
                  ? `Has no name: the radio shows ${formatFrequency(channel.rx)}.`
                  : 'The display has none of the letters of this name and shows the frequency.',
            },
          ],
    );
  },
};
