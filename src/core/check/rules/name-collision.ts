import { nameAlone } from '../../fit';
import type { Model } from '../../models';
import { abbreviationsOf, type Abbreviations, type Channel } from '../../plan';
import { remembered, rememberedAlong } from '../../remember';
import type { Hit, PlanRule } from '../finding';

/** What each would read where no other read so. */
const basesOf = remembered((model: Model) =>
  remembered((abbreviations: Abbreviations) => {
    const alone = nameAlone(model)(abbreviations);
    return rememberedAlong((channel: Channel) => alone(channel).text);
  }),
);

/** Two channels that read the same on the radio, or would but for a figure at the tail. */
export const nameCollision: PlanRule = {
  id: 'name-collision',
  looksFor: 'names that read alike on the radio',
  about: ['channel'],
  find: ({ plan, shown, model }) => {
    const { channels } = plan;
    const bases = basesOf(model)(abbreviationsOf(plan))(channels);
    /** The last that reads so, and the first whose name comes out so before it is told apart. */
    // Of one list: the other side has a display line of its own.
    const reads = new Map<string, number>();
    const first = new Map<string, number>();
    const hits: Hit[] = [];
    for (let at = 0; at < channels.length; at++) {
      const text = shown[at];
      if (!text) continue;
      const { list } = channels[at]!;
      const key = `${list} ${text}`;
      const twin = reads.get(key);
      const base = bases[at]!;
      const baseKey = `${list} ${base}`;
      const alike = first.get(baseKey);
      if (twin !== undefined)
        hits.push({
          at: [at, twin],
          say: ([, other]) => ({
            severity: 'caution',
            field: 'name',
            text: `Cannot be told from slot ${other!.slot}: both read ${text} on the radio.`,
          }),
        });
      else if (text !== base && alike !== undefined)
        hits.push({
          at: [at, alike],
          say: ([, other]) => ({
            severity: 'hint',
            field: 'name',
            text: `Reads ${text} on the radio, since slot ${other!.slot} already reads ${base}.`,
          }),
        });
      reads.set(key, at);
      if (alike === undefined) first.set(baseKey, at);
    }
    return hits;
  },
};
