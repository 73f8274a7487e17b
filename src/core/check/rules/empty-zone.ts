import { recordRule } from '../finding';

/** A zone that the radio holds and that has none of its channels. */
export const emptyZone = recordRule(
  'empty-zone',
  'zones without a channel',
  ['zone'],
  function* ({ plan, model, held }) {
    const { word, count } = model.zones!;
    for (const { id, members } of plan.zones.slice(0, count))
      if (!members.some((member) => held.has(member)))
        yield {
          ...{ kind: 'zone', id, severity: 'hint' },
          text: `An empty ${word}: whoever turns to it hears nothing and sees no channel.`,
          mends: () => [{ label: `Remove the ${word}`, edit: { name: 'remove', kind: 'zone', ids: [id] } }],
        };
  },
  ({ zones }) => zones !== null,
);
