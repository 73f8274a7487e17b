import { sameInRadio } from '../compare/contents';
import { alikeOf, CHANGE_TODO, fit, OBSTACLE_WORDS, type Fit, type FitChange, type Obstacle } from '../fit';
import { placeText, type FittedChannel, type Model } from '../models';
import { slotText, type Channel, type ChannelId, type Plan } from '../plan';
import { formatFrequency } from '../radio';
import { moveToModel } from './move';

/** How a model holds a channel: as it is, with changes, or not at all; and what became of it, in words. */
export interface Holding {
  how: 'whole' | 'changed' | 'left out';
  /** What changed or is in the way, in a word, in words, and why; and what the person could do where that is something. */
  words: readonly { what: string; text: string; because: string; todo?: string }[];
}

/** A radio that a plan is held against: any of a model, or a unit with what is in it now. */
export interface Against {
  model: Model;
  unit?: { id: string; called: string; channels: readonly FittedChannel[] };
}

/** A plan held against several radios. */
export interface SideBySide {
  columns: {
    /** Of the unit, or of the model. */
    key: string;
    model: Model;
    /** How much of what it would hold is in that unit already; null for a model. */
    unit: { called: string; there: number; otherwise: number; missing: number } | null;
    whole: number;
    changed: number;
    leftOut: number;
    /** Zones, skip sets and the like that it changes or cannot hold. */
    besides: readonly { text: string; because: string; n: number }[];
  }[];
  /** A row a channel, a cell a model. */
  rows: { channel: Channel; cells: Holding[]; lost: number }[];
}

/** What keeps a channel out, in a word. */
const SHORT: Record<Obstacle, string> = {
  slot: 'slot',
  'home band': 'home band',
  'receive range': 'range',
  'receive step': 'step',
  'transmit step': 'step',
  mode: 'mode',
  access: 'tone',
  'colour code': 'colour code',
};

const CHANGED: Record<FitChange['what'], string> = {
  name: 'name',
  power: 'power',
  tx: 'listen only',
  access: 'access',
  mode: 'mode',
  shift: 'split',
  digital: 'talkgroup',
  'scan list': 'scan list',
};

const WHOLE: Holding = { how: 'whole', words: [] };

/** What of a fit is in a unit already, channel by channel; and what is in its place, in words. */
function inUnit(fitted: Fit, { called, channels }: NonNullable<Against['unit']>) {
  const key = ({ list, slot }: FittedChannel) => `${list} ${slot}`;
  const held = new Map(channels.map((channel) => [key(channel), channel]));
  const words = new Map<ChannelId, Holding['words'][number]>();
  const unit = { called, there: 0, otherwise: 0, missing: 0 };
  for (const channel of fitted.channels) {
    const now = held.get(key(channel));
    if (now && sameInRadio(now, channel)) {
      unit.there++;
      continue;
    }
    unit[now ? 'otherwise' : 'missing']++;
    words.set(
      channel.id,
      now
        ? {
            what: 'otherwise',
            text: 'Stands otherwise in this unit',
            because: `its slot has “${now.name || formatFrequency(now.rx)}” by the newest copy`,
          }
        : { what: 'not yet', text: 'Not in this unit yet', because: 'its slot is empty by the newest copy' },
    );
  }
  return { unit, words };
}

/** How one radio holds each channel of a plan, with slots found anew where it lacks those that the plan has. */
function holdings(plan: Plan, { model, unit: of }: Against) {
  const { plan: there, moved, leftOver } = moveToModel(plan, model);
  const fitted = fit(there, model);
  const held = new Map<ChannelId, Holding>();
  const words = new Map<ChannelId, Holding['words'][number][]>();
  const add = (id: ChannelId, what: string, text: string, because: string, todo?: string) => {
    const said = { what, text, because, ...(todo && { todo }) };
    const known = words.get(id);
    if (known) known.push(said);
    else words.set(id, [said]);
  };
  for (const { id, from, to } of moved)
    if (from.list === to.list)
      add(
        id,
        'slot',
        `Slot ${slotText(from.slot)} becomes ${slotText(to.slot)}`,
        'This radio does not have that slot free',
      );
    else
      add(id, 'slot', `Goes to ${placeText(model, to)}`, 'This radio does not have the side that it is on');
  for (const { id, what, text, because } of fitted.changes)
    add(id, CHANGED[what], text, because, CHANGE_TODO[what]);
  for (const [id, said] of words) held.set(id, { how: 'changed', words: said });
  const now = of && inUnit(fitted, of);
  for (const [id, said] of now?.words ?? []) {
    const { how, words: others } = held.get(id) ?? WHOLE;
    held.set(id, { how, words: [...others, said] });
  }
  for (const { id, obstacles } of fitted.leftOut)
    held.set(id, {
      how: 'left out',
      words: obstacles.map((one) => ({ what: SHORT[one], text: 'Left out', ...OBSTACLE_WORDS[one] })),
    });
  const homes = new Set(
    plan.channels.flatMap(({ id, list }) => (list > 1 && !model.lists[list] ? [id] : [])),
  );
  for (const id of leftOver)
    held.set(id, {
      how: 'left out',
      words: [
        homes.has(id)
          ? { what: 'no homes', text: 'Left out', because: 'this radio has no home channels' }
          : { what: 'no room', text: 'Left out', because: 'there is no room for it' },
      ],
    });
  return { held, unit: now?.unit ?? null, besides: alikeOf(fitted.besides) };
}

/** Holds a plan against several radios: what each keeps of every channel. Rows are in the order of the plan. */
export function sideBySide(plan: Plan, radios: readonly Against[]): SideBySide {
  const all = radios.map((radio) => ({ radio, ...holdings(plan, radio) }));
  const rows = plan.channels.map((channel) => {
    const cells = all.map(({ held }) => held.get(channel.id) ?? WHOLE);
    return { channel, cells, lost: cells.filter(({ how }) => how === 'left out').length };
  });
  const count = (column: number, how: Holding['how']) =>
    rows.reduce((n, { cells }) => n + (cells[column]!.how === how ? 1 : 0), 0);
  return {
    columns: all.map(({ radio, unit, besides }, column) => ({
      key: radio.unit?.id ?? radio.model.id,
      model: radio.model,
      unit,
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
