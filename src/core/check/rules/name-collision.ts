import { nameAlone } from '../../fit';
import { abbreviationsOf } from '../../plan';
import type { Hit, PlanRule } from '../finding';

/** Two channels that read the same on the radio, or would but for a figure at the tail. */
export const nameCollision: PlanRule = {
  id: 'name-collision',
  looksFor: 'names that read alike on the radio',
  about: ['channel'],
  find: ({ plan, shown, model }) => {
    const alone = nameAlone(model)(abbreviationsOf(plan));
    const { channels } = plan;
    /** The last that reads so, and the first whose name comes out so before it is told apart. */
    const reads = new Map<string, number>();
    const first = new Map<string, number>();
    const hits: Hit[] = [];
    for (const [at, channel] of channels.entries()) {
      const text = shown.get(channel.id);
      if (!text) continue;
      const twin = reads.get(text);
      const base = alone(channel).text;
      const alike = first.get(base);
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
      reads.set(text, at);
      if (alike === undefined) first.set(base, at);
    }
    return hits;
  },
};
