import { z } from 'zod';
import type { RadioContent, ToWrite } from '../image';
import { sidesOf, type Content, type Model } from '../models';
import { settingsOf } from '../models/settings';
import { SIDE_WORDS, slotText } from '../plan';
import { formatFrequency } from '../radio';
import { sameValue, valueWords, type AnyValue } from '../settings';
import { capital } from '../text';
import { people, receiveLists, scanLists, talkgroups, zoneDiffers } from './digital';
import { inAndOut, named, renamed, type Kind } from './kind';

export const besideChangeSchema = z.object({
  mark: z.enum(['new', 'changed', 'emptied']),
  /** What it is, as the radio numbers it: `Left bank 2`, `Quick set-up 1`, `Squelch`. */
  title: z.string(),
  /** What becomes of it. */
  text: z.string(),
  /** A setting after whose change the radio wants to be switched off and on. */
  restart: z.literal(true).optional(),
  /** A value that is a unit's own: a restore to another unit does not change it there. */
  unitOwn: z.literal(true).optional(),
});
/** What a write changes in a radio beside its channels: a bank, a skip set, a pair of scan edges, a quick set-up, a talkgroup, its people, a list, a setting. */
export type BesideChange = z.infer<typeof besideChangeSchema>;

const channels = (n: number) => (n === 0 ? 'no channels' : n === 1 ? '1 channel' : `${n} channels`);
/** The kinds that stand beside the channels of a model. */
function kindsOf(model: Model) {
  const side = (list: number) => (sidesOf(model).length > 1 ? model.lists[list]!.name.toLowerCase() : '');
  const onSide = (list: number, words: string) => capital(`${side(list)} ${words}`.trim());
  const sideAt = (at: number) => side(sidesOf(model)[at] ?? 0);
  const word = model.zones?.word ?? 'zone';
  const zones: Kind<Content['zones'][number]> = {
    of: (content) => content.zones ?? [],
    title: ({ list, number }) => onSide(list, `${word} ${number}`),
    whole: ({ name, slots }) => named(name, channels(slots.length)),
    differing: (was, is) => [...renamed(was, is), ...zoneDiffers(was, is, model.zones?.ordered ?? false)],
  };
  const skipSets: Kind<Content['skipSets'][number]> = {
    of: (content) => content.skipSets ?? [],
    title: ({ number }) => `Skip set ${number}`,
    whole: ({ name, way, slots }) =>
      named(name, `scan ${way} ${channels(slots.reduce((n, of) => n + of.length, 0))}`),
    differing: (was, is) => [
      ...renamed(was, is),
      ...(was.way === is.way ? [] : [`scan ${is.way}, was scan ${was.way}`]),
      ...is.slots.flatMap((slots, at) => inAndOut(was.slots[at] ?? [], slots, sideAt(at))),
    ],
  };
  const edges = ({ from, to }: Content['scanEdges'][number]) =>
    `${formatFrequency(from)} to ${formatFrequency(to)}`;
  const scanEdges: Kind<Content['scanEdges'][number]> = {
    of: (content) => content.scanEdges ?? [],
    title: ({ list, number }) => onSide(list, `scan edges ${number}`),
    whole: edges,
    differing: (was, is) => (edges(was) === edges(is) ? [] : [`${edges(is)}, was ${edges(was)}`]),
  };
  const setUps: Kind<Content['setUps'][number]> = {
    of: (content) => content.setUps ?? [],
    title: ({ number }) => `Quick set-up ${number}`,
    whole: ({ name, sides }) =>
      named(
        name,
        sides
          .map(({ begins, start }, at) =>
            `${sideAt(at)} on ${begins === 'memory' ? `channel ${start === null ? 'one' : slotText(start)}` : `its ${begins}`}`.trim(),
          )
          .join(', '),
      ),
    differing: (was, is) => [
      ...renamed(was, is),
      ...is.sides.flatMap((one, at) => {
        const other = was.sides[at];
        const fields = SIDE_WORDS.flatMap(([field, words]) =>
          other?.[field] === one[field] ? [] : [field === 'zone' ? word : words],
        );
        return fields.length === 0 ? [] : [[sideAt(at), fields.join(', ')].filter(Boolean).join(': ')];
      }),
    ],
  };
  return { zones, skipSets, scanEdges, setUps };
}

function compareKind<T>(kind: Kind<T>, before: Partial<Content>, after: Partial<Content>): BesideChange[] {
  const told = (content: Partial<Content>) => new Map(kind.of(content).map((one) => [kind.title(one), one]));
  const [was, is] = [told(before), told(after)];
  const changes: BesideChange[] = [];
  for (const [title, one] of is) {
    const other = was.get(title);
    if (!other) changes.push({ mark: 'new', title, text: kind.whole(one) });
    else {
      const text = kind.differing(other, one).join('; ');
      if (text) changes.push({ mark: 'changed', title, text });
    }
  }
  for (const [title, one] of was)
    if (!is.has(title)) changes.push({ mark: 'emptied', title, text: kind.whole(one) });
  return changes;
}

/** Changes of alike things as one, with how many there are of each: there may be hundreds. */
function summedUp(title: string, changes: readonly BesideChange[]): BesideChange[] {
  if (changes.length < 2) return [...changes];
  const count = (wanted: BesideChange['mark']) => changes.filter(({ mark }) => mark === wanted).length;
  const marks = (['new', 'changed', 'emptied'] as const).filter((mark) => count(mark) > 0);
  return [
    {
      mark: marks.length === 1 ? marks[0]! : 'changed',
      title,
      text: marks.map((mark) => `${count(mark)} ${mark}`).join(', '),
    },
  ];
}

/**
 * Compares what a radio of a model holds beside its channels with what it is to hold. Settings that are not written stay as they are
 * and are not told of.
 */
export function compareBesides(before: RadioContent, after: ToWrite, model: Model): BesideChange[] {
  const settings = settingsOf(model).flatMap(({ key, name, value, restart, scope }): BesideChange[] => {
    const [was, is] = [before.settings[key], after.settings[key]] as (AnyValue | undefined)[];
    const unknown = before.unknown?.[key];
    if (is === undefined || (unknown === undefined && sameValue(was, is))) return [];
    const words = (held: AnyValue) => valueWords(value, held);
    const former = unknown === undefined ? was !== undefined && words(was) : `unknown (${unknown})`;
    return [
      {
        ...{ mark: former === false ? 'new' : 'changed', title: name },
        text: former === false ? words(is) : `${words(is)}, was ${former}`,
        ...(restart && { restart: true }),
        ...(scope === 'unit' && { unitOwn: true }),
      },
    ];
  });
  const { zones, skipSets, scanEdges, setUps } = kindsOf(model);
  return [
    ...compareKind(zones, before, after),
    ...compareKind(skipSets, before, after),
    ...compareKind(scanEdges, before, after),
    ...compareKind(setUps, before, after),
    ...compareKind(talkgroups, before, after),
    ...summedUp('People', compareKind(people, before, after)),
    ...compareKind(receiveLists, before, after),
    ...compareKind(scanLists, before, after),
    ...settings,
  ];
}
