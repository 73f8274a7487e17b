import { fit, type FitChange, type Obstacle } from '../fit';
import type { Model } from '../models';
import { slotText, type Channel, type ChannelId, type Plan } from '../plan';
import { moveToModel } from './move';

/** How a model holds a channel: as it is, with changes, or not at all; and what became of it, in words. */
export interface Holding {
  how: 'whole' | 'changed' | 'left out';
  /** What changed or is in the way, in a word, in words, and why. */
  words: readonly { what: string; text: string; because: string }[];
}

/** A plan held against several models. */
export interface SideBySide {
  columns: {
    model: Model;
    whole: number;
    changed: number;
    leftOut: number;
    /** Zones, skip sets and the like that it changes or cannot hold. */
    besides: readonly { text: string; because: string; n: number }[];
  }[];
  /** A row a channel, a cell a model. */
  rows: { channel: Channel; cells: Holding[]; lost: number }[];
}

const IN_THE_WAY: Record<Obstacle, string> = {
  slot: 'its slot is not in this radio',
  'home band': 'a home channel lies in its own band',
  'receive range': 'this radio does not tune there',
  'receive step': 'receive lies between its steps',
  'transmit step': 'transmit lies between its steps',
  mode: 'this radio lacks the mode',
  access: 'this radio lacks the tone or code',
};

/** The same in a word. */
const SHORT: Record<Obstacle, string> = {
  slot: 'slot',
  'home band': 'home band',
  'receive range': 'range',
  'receive step': 'step',
  'transmit step': 'step',
  mode: 'mode',
  access: 'tone',
};

const CHANGED: Record<FitChange['what'], string> = {
  name: 'name',
  power: 'power',
  tx: 'listen only',
  access: 'access',
  mode: 'mode',
  shift: 'split',
};

const WHOLE: Holding = { how: 'whole', words: [] };

/** How one model holds each channel of a plan, with slots found anew where it lacks those that the plan has. */
function holdings(plan: Plan, model: Model) {
  const { plan: there, moved, leftOver } = moveToModel(plan, model);
  const fitted = fit(there, model);
  const of = new Map<ChannelId, Holding>();
  const words = new Map<ChannelId, { what: string; text: string; because: string }[]>();
  const add = (id: ChannelId, what: string, text: string, because: string) => {
    const known = words.get(id);
    if (known) known.push({ what, text, because });
    else words.set(id, [{ what, text, because }]);
  };
  for (const { id, from, to } of moved)
    add(
      id,
      'slot',
      model.lists.length > 1 && from.list !== to.list
        ? `Goes to ${model.lists[to.list]!.name.toLowerCase()}, slot ${slotText(to.slot)}`
        : `Slot ${slotText(from.slot)} becomes ${slotText(to.slot)}`,
      'This radio does not have that slot free',
    );
  for (const { id, what, text, because } of fitted.changes) add(id, CHANGED[what], text, because);
  for (const [id, said] of words) of.set(id, { how: 'changed', words: said });
  for (const { id, obstacles } of fitted.leftOut)
    of.set(id, {
      how: 'left out',
      words: obstacles.map((one) => ({ what: SHORT[one], text: 'Left out', because: IN_THE_WAY[one] })),
    });
  const homes = new Set(
    plan.channels.flatMap(({ id, list }) => (list > 1 && !model.lists[list] ? [id] : [])),
  );
  for (const id of leftOver)
    of.set(id, {
      how: 'left out',
      words: [
        homes.has(id)
          ? { what: 'no homes', text: 'Left out', because: 'this radio has no home channels' }
          : { what: 'no room', text: 'Left out', because: 'there is no room for it' },
      ],
    });
  const besides = new Map<string, { text: string; because: string; n: number }>();
  for (const { text, because } of fitted.besides) {
    const alike = besides.get(`${text} ${because}`);
    if (alike) alike.n++;
    else besides.set(`${text} ${because}`, { text, because, n: 1 });
  }
  return { of, besides: [...besides.values()] };
}

/** Holds a plan against several models: what each keeps of every channel. Rows are in the order of the plan. */
export function sideBySide(plan: Plan, models: readonly Model[]): SideBySide {
  const held = models.map((model) => ({ model, ...holdings(plan, model) }));
  const rows = plan.channels.map((channel) => {
    const cells = held.map(({ of }) => of.get(channel.id) ?? WHOLE);
    return { channel, cells, lost: cells.filter(({ how }) => how === 'left out').length };
  });
  const count = (column: number, how: Holding['how']) =>
    rows.reduce((n, { cells }) => n + (cells[column]!.how === how ? 1 : 0), 0);
  return {
    columns: held.map(({ model, besides }, column) => ({
      model,
      whole: count(column, 'whole'),
      changed: count(column, 'changed'),
      leftOut: count(column, 'left out'),
      besides,
    })),
    rows,
  };
}

/** The rows with those first of which most is lost; of as much, in the order of the plan. */
export const byLoss = (rows: SideBySide['rows']): SideBySide['rows'] =>
  [...rows].sort((a, b) => b.lost - a.lost || changes(b) - changes(a));
const changes = ({ cells }: SideBySide['rows'][number]) =>
  cells.filter(({ how }) => how === 'changed').length;

/** What another radio would hold that this one does not, and the other way round, by the columns of the two. */
export function gainAndLoss(
  rows: SideBySide['rows'],
  own: number,
  other: number,
): { gained: number; lost: number } {
  const holds = (row: SideBySide['rows'][number], column: number) => row.cells[column]!.how !== 'left out';
  return {
    gained: rows.filter((row) => !holds(row, own) && holds(row, other)).length,
    lost: rows.filter((row) => holds(row, own) && !holds(row, other)).length,
  };
}
