import { noContent, sidesOf, type Content, type Model } from '../models';
import {
  abbreviationsOf,
  KINDS,
  recordsOf,
  type ChannelId,
  type OwnKind,
  type Plan,
  type Zone,
} from '../plan';
import { fitReceiveLists, fitScanLists, fitTalkgroups, numbersIn, shownName } from './digital';
import type { FitBeside, FittedPlanChannel } from './fitted';

/** What of a plan stands beside its channels in a radio: banks, skip sets, scan edges, quick set-ups; and what became of the rest. */
export type Besides = Omit<Content, 'channels'> & { besides: FitBeside[] };

/** Where a channel is in the radio. */
type Place = Pick<FittedPlanChannel, 'list' | 'slot'>;

/** The kinds that stand in a radio; what is left over does not. */
type HeldKind = Exclude<OwnKind, 'leftOver' | 'talkgroup'>;

const NOT_AT_ALL: Record<HeldKind, string> = {
  zone: 'This radio has no zones',
  skipSet: 'This radio has no skip sets',
  scanEdge: 'This radio has no scan edges of its own',
  setUp: 'This radio has no quick set-ups',
  receiveList: 'This radio has no receive lists',
  scanList: 'This radio has no scan lists',
};

/**
 * Works out what stands beside the channels. The radio's numbers follow the plan's order: its first zone is bank 1 of each side, and
 * holds there what of it is on that side.
 */
export function fitBesides(plan: Plan, model: Model, channels: readonly FittedPlanChannel[]): Besides {
  const { channels: _, ...content } = noContent();
  const made: Besides = { ...content, besides: [] };
  const sides = sidesOf(model);
  const places = new Map<ChannelId, Place>(channels.map((channel) => [channel.id, channel]));
  const slotsOn = (list: number, members: readonly ChannelId[]) =>
    members
      .flatMap((id) => {
        const place = places.get(id);
        return place?.list === list ? [place.slot] : [];
      })
      .sort((a, b) => a - b);
  const leave = (kind: HeldKind, id: string, because: string) =>
    made.besides.push({ kind, id, text: 'Left out', because });

  const shown = shownName(model)(abbreviationsOf(plan));
  /** The records that the model has room for, each with its number and its name as the display has it. */
  const held = <K extends HeldKind>(kind: K, has: { count: number; name: number; word?: string } | null) =>
    (recordsOf(plan, kind) as readonly { id: string; name: string }[]).flatMap((record, place) => {
      if (!has) leave(kind, record.id, NOT_AT_ALL[kind]);
      else if (place >= has.count)
        leave(kind, record.id, `This radio has ${has.count} ${has.word ?? KINDS[kind].words.one}s`);
      else {
        const name = has.name === 0 ? '' : shown(record, has.name);
        if (has.name > 0 && name.toLowerCase() !== record.name.trim().toLowerCase())
          made.besides.push({
            kind,
            id: record.id,
            text: `Named ${name}`,
            because: `${has.name} characters on this display`,
          });
        return [{ id: record.id, number: place + 1, name }];
      }
      return [];
    });

  const numbers = numbersIn(plan, model, abbreviationsOf(plan));
  const zones = held('zone', model.zones);
  for (const [at, zone] of zones.entries()) {
    const { members, scanList } = plan.zones[at]!;
    for (const list of sides) {
      const one = { list, number: zone.number, name: zone.name };
      made.zones.push({
        ...(model.zones!.ordered
          ? { ...one, ...inOrder(plan.zones[at]!, model.zones!, places, made) }
          : { ...one, slots: slotsOn(list, members) }),
        ...(model.scanLists?.by === 'zone' && {
          scanList: (scanList && numbers.scanList.get(scanList)) || null,
        }),
      });
    }
  }
  made.zones.sort((a, b) => a.list - b.list || a.number - b.number);

  const sets = held('skipSet', model.skipSets);
  for (const [at, { number, name }] of sets.entries()) {
    const { way, members } = plan.skipSets[at]!;
    made.skipSets.push({ number, name, way, slots: sides.map((list) => slotsOn(list, members)) });
  }

  fitScanEdges(plan, model, made, leave);

  const talkgroups = fitTalkgroups(plan, model, abbreviationsOf(plan));
  made.talkgroups = talkgroups.rows;
  made.besides.push(...talkgroups.besides);
  const say = (kind: HeldKind, id: string, text: string, because: string) =>
    made.besides.push({ kind, id, text, because });
  const lists = held('receiveList', model.digital?.receiveLists ?? null);
  made.receiveLists = fitReceiveLists(plan.receiveLists, lists, model, numbers, say);
  made.scanLists = fitScanLists(plan, held('scanList', model.scanLists ?? null), model, places, say);

  const numberIn = (of: { id: string; number: number }[], id: string | null) =>
    of.find((one) => one.id === id)?.number ?? null;
  for (const [at, { id, number, name }] of held('setUp', model.setUps).entries()) {
    const setUp = plan.setUps[at]!;
    made.setUps.push({
      number,
      name,
      sides: sides.map((list, side) => {
        const wanted = setUp.sides[side];
        const start = wanted?.start ? places.get(wanted.start) : undefined;
        if (wanted?.start && start?.list !== list)
          made.besides.push({
            kind: 'setUp',
            id,
            text: `${model.lists[list]!.name}: begins on the first channel`,
            because: 'Its start is not on that side of the radio',
          });
        return {
          begins: wanted?.begins ?? 'dial',
          zone: wanted ? numberIn(zones, wanted.zone) : null,
          start: start?.list === list ? start.slot : null,
          skipSet: wanted ? numberIn(sets, wanted.skipSet) : null,
          scanning: wanted?.scanning ?? false,
          shows: wanted?.shows ?? 'name',
          autoDial: wanted?.autoDial ?? '',
        };
      }),
    });
  }
  return made;
}

/** The channels of a zone in its own order, as many as it has room for; on radios with a knob, what each of its positions turns to. */
function inOrder(
  { id, members, knob }: Zone,
  has: NonNullable<Model['zones']>,
  places: ReadonlyMap<ChannelId, Place>,
  { besides }: Besides,
): Pick<Content['zones'][number], 'slots' | 'knob'> {
  const slotOf = (member: ChannelId | null) => (member && places.get(member)?.slot) || 0;
  const slots = members.map(slotOf).filter((slot) => slot > 0);
  const say = (text: string, because: string) => besides.push({ kind: 'zone', id, text, because });
  if (!has.knob) {
    const most = has.members ?? slots.length;
    if (slots.length > most)
      say(`Holds ${most} of its ${slots.length} channels`, `A ${has.word} of this radio has ${most}`);
    return { slots: slots.slice(0, most) };
  }
  // What went from the zone is at no position any more.
  const there = new Set(members);
  const wanted = knob
    ? knob.map(({ channel }) => (channel && there.has(channel) ? slotOf(channel) : 0))
    : slots;
  const positions = wanted.slice(0, has.knob);
  const on = new Set(positions.filter((slot) => slot > 0));
  const off = slots.filter((slot) => !on.has(slot)).length;
  if (off > 0)
    say(
      off === 1 ? 'One channel is out of the knob’s reach' : `${off} channels are out of the knob’s reach`,
      `The knob of this radio has ${has.knob} positions`,
    );
  while (positions.length > 0 && positions[positions.length - 1] === 0) positions.pop();
  return { slots: [...on], knob: positions };
}

function fitScanEdges(
  plan: Plan,
  model: Model,
  made: Besides,
  leave: (kind: HeldKind, id: string, because: string) => void,
): void {
  const sides = sidesOf(model);
  const counts = new Map<number, number>();
  for (const { id, list, from, to } of plan.scanEdges) {
    const band = model.bands.find(({ receive }) => from >= receive.from && to <= receive.to);
    const number = (counts.get(list) ?? 0) + 1;
    if (!model.scanEdges) leave('scanEdge', id, NOT_AT_ALL.scanEdge);
    else if (!sides.includes(list)) leave('scanEdge', id, 'This radio has no such side');
    else if (from >= to) leave('scanEdge', id, 'Its lower edge is not below its upper one');
    else if (!band) leave('scanEdge', id, 'Not within one band of this radio');
    else if (number > model.scanEdges.count)
      leave('scanEdge', id, `This radio has ${model.scanEdges.count} pairs a side`);
    else {
      counts.set(list, number);
      made.scanEdges.push({ list, number, from, to });
    }
  }
  made.scanEdges.sort((a, b) => a.list - b.list || a.number - b.number);
}
