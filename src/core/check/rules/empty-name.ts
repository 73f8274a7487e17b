import type { Channel } from '../../plan';
import { formatFrequency } from '../../radio';
import { rememberedAlong } from '../../remember';
import type { Hit, PlanRule } from '../finding';

const namelessIn = rememberedAlong(({ name }: Channel) => name === '');

/** A channel without a name, or with none that the display can write. */
export const emptyName: PlanRule = {
  id: 'empty-name',
  looksFor: 'channels without a name',
  about: ['channel'],
  find: ({ plan, shown }) => {
    const hits: Hit[] = [];
    const nameless = namelessIn(plan.channels);
    for (let at = 0; at < nameless.length; at++)
      if (nameless[at] || shown[at] === '')
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
