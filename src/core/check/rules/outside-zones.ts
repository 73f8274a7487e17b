import { sidesOf } from '../../models';
import type { ChannelId, Plan } from '../../plan';
import { remembered } from '../../remember';
import { recordRule } from '../finding';

/** What some of the first zones have; the very same for the same zones. */
const membersIn = remembered((zones: Plan['zones']) => {
  const known = new Map<number, ReadonlySet<ChannelId>>();
  return (count: number) => {
    let members = known.get(count);
    if (!members)
      known.set(count, (members = new Set(zones.slice(0, count).flatMap((zone) => zone.members))));
    return members;
  };
});

/** Channels that are in none of the zones, where the plan has zones. */
export const outsideZones = recordRule(
  'outside-zones',
  'channels in no zone',
  ['zone'],
  function* ({ plan, model, held }) {
    const { word, count } = model.zones!;
    const inSome = membersIn(plan.zones)(count);
    if (inSome.size === 0) return;
    const sides = new Set(sidesOf(model));
    const outside = plan.channels.filter(
      ({ id, list }) => sides.has(list) && held.has(id) && !inSome.has(id),
    );
    if (outside.length === 0) return;
    const names = outside.slice(0, 3).map(({ name }) => `“${name}”`);
    const [many, them] =
      outside.length === 1 ? ['One channel is', 'it'] : [`${outside.length} channels are`, 'them'];
    yield {
      ...{ kind: 'zone', id: plan.zones[0]!.id, severity: 'hint' },
      text: `${many} in no ${word}: ${names.join(', ')}${outside.length > 3 ? ' and others' : ''}. With ${word}s switched on the knob passes ${them} by.`,
    };
  },
  ({ zones }) => zones !== null,
);
