import { abbreviationsOf, fitName } from '../../plan';
import type { PlanRule } from '../finding';

/** Two channels that read the same on the radio, or would but for a figure at the tail. */
export const nameCollision: PlanRule = {
  id: 'name-collision',
  looksFor: 'names that read alike on the radio',
  about: ['channel'],
  find: ({ plan, shown, model }) => {
    const abbreviations = abbreviationsOf(plan);
    const byText = new Map<string, string>();
    const first = new Map<string, string>();
    return plan.channels.flatMap((channel) => {
      const text = shown.get(channel.id);
      if (!text) return [];
      const found = [];
      const twin = byText.get(text);
      const base = fitName(channel.fitted[model.id] ?? channel.name, model.names, abbreviations).text;
      const alike = first.get(base);
      if (twin !== undefined)
        found.push({
          severity: 'caution' as const,
          id: channel.id,
          field: 'name' as const,
          text: `Cannot be told from slot ${twin}: both read ${text} on the radio.`,
        });
      else if (text !== base && alike !== undefined)
        found.push({
          severity: 'hint' as const,
          id: channel.id,
          field: 'name' as const,
          text: `Reads ${text} on the radio, since slot ${alike} already reads ${base}.`,
        });
      byText.set(text, String(channel.slot));
      if (!first.has(base)) first.set(base, String(channel.slot));
      return found;
    });
  },
};
