import { distanceKm, hasTalkgroups } from '../../radio';
import type { Channel, Talkgroup } from '../../plan';
import { remembered } from '../../remember';
import { asSeen } from '../as-seen';
import { setMend, type Hit, type PlanRule } from '../finding';
import { nearTo, placeOf, placesOf, type Neighbour } from '../neighbour';

/** A digital repeater as a directory has it. */
type Digital = Neighbour & { access: Extract<Channel['access'], { kind: 'dmr' }> };
type OnDmr = Channel & Pick<Digital, 'access'>;

const isDmr = <R extends { access?: Channel['access'] | undefined }>(
  one: R,
): one is R & Pick<Digital, 'access'> => one.access?.kind === 'dmr';

const keyOf = (output: number, input: number) => `${output} ${input}`;

/** By what they send and listen on; what a directory knows changes by the hour. */
const filedOf = remembered((neighbours: readonly Neighbour[]) => {
  const filed = new Map<string, Digital[]>();
  for (const one of neighbours.filter(isDmr)) {
    const key = keyOf(one.output, one.input);
    filed.set(key, [...(filed.get(key) ?? []), one]);
  }
  return filed;
});

/** In which way a channel is otherwise than a repeater; undefined where the two agree. */
function otherwise(
  { access }: OnDmr,
  number: number | undefined,
  repeater: Digital,
): 'colour code' | 'slot' | undefined {
  if (access.colourCode !== repeater.access.colourCode) return 'colour code';
  const slots = (repeater.groups ?? []).flatMap((group) =>
    group.number === number ? (group.slot ?? []) : [],
  );
  return slots.length > 0 && !slots.includes(access.timeSlot) ? 'slot' : undefined;
}

const kmTo = (channel: Channel, { lat, lon }: Neighbour) => {
  const own = placeOf(channel);
  return own.lat === undefined || own.lon === undefined || lat === undefined || lon === undefined
    ? Infinity
    : distanceKm({ lat: own.lat, lon: own.lon }, { lat, lon });
};

const onAir = asSeen('rx', 'tx', 'mode', 'access', 'talkgroup', 'source');

const all = remembered((neighbours: readonly Neighbour[]) =>
  remembered((talkgroups: readonly Talkgroup[]) =>
    remembered((channels: readonly Channel[]): Hit[] => {
      const filed = filedOf(neighbours);
      if (filed.size === 0) return [];
      const places = placesOf(channels);
      const numberOf = new Map(talkgroups.map(({ id, number }) => [id, number]));
      return channels.flatMap((channel, at): Hit[] => {
        const { mode, rx, tx, talkgroup } = channel;
        if (!hasTalkgroups(mode) || tx === null || !isDmr(channel)) return [];
        const number = talkgroup ? numberOf.get(talkgroup) : undefined;
        const here = (filed.get(keyOf(rx, tx)) ?? []).filter((one) => nearTo(channel, places, one));
        // Of several on the same frequencies any may be meant.
        if (here.length === 0 || here.some((one) => otherwise(channel, number, one) === undefined)) return [];
        const [nearest] = here.sort((a, b) => kmTo(channel, a) - kmTo(channel, b)) as [Digital];
        return [{ at: [at], say: ([own]) => said(own as OnDmr, number, nearest) }];
      });
    }),
  ),
);

function said(own: OnDmr, number: number | undefined, repeater: Digital): ReturnType<Hit['say']> {
  const { access } = own;
  const of = `“${repeater.name}”`;
  if (otherwise(own, number, repeater) === 'colour code') {
    const { colourCode } = repeater.access;
    return {
      severity: 'caution',
      field: 'access',
      text: `The directory has colour code ${colourCode} for ${of}; this is ${access.colourCode}, to which it does not answer.`,
      mends: () => [setMend(own, `Use colour code ${colourCode}`, { access: { ...access, colourCode } })],
    };
  }
  const timeSlot = access.timeSlot === 1 ? 2 : 1;
  return {
    severity: 'caution',
    field: 'access',
    text: `The directory has talkgroup ${number} in time slot ${timeSlot} of ${of}; in slot ${access.timeSlot} nobody who calls it is heard.`,
    mends: () => [setMend(own, `Use time slot ${timeSlot}`, { access: { ...access, timeSlot } })],
  };
}

/** A digital channel that is otherwise than a directory has its repeater: another colour code, or its talkgroup in the other time slot. */
export const otherThanDirectory: PlanRule = {
  id: 'other-than-directory',
  looksFor: 'digital channels that a directory has otherwise',
  about: ['channel'],
  applies: ({ digital }) => digital !== undefined,
  find: ({ plan, neighbours }) => all(neighbours)(plan.talkgroups)(onAir(plan.channels)),
};
