import { formatFrequency } from '../../radio';
import type { Hit, PlanRule } from '../finding';

/** A channel without a name, or with none that the display can write. */
export const emptyName: PlanRule = {
  id: 'empty-name',
  looksFor: 'channels without a name',
  about: ['channel'],
  find: ({ plan, shown }) => {
    const hits: Hit[] = [];
    for (const [at, { id, name }] of plan.channels.entries())
      if (name === '' || shown.get(id) === '')
        hits.push({
          at: [at],
          say: ([channel]) => ({
            severity: 'hint',
            field: 'name',
            text:
              channel!.name === ''
                ? `Has no name: the radio shows ${formatFrequency(channel!.rx)}.`
                : 'The display has none of the letters of this name and shows the frequency.',
          }),
        });
    return hits;
  },
};
