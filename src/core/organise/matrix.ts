import type { Model } from '../models';
import type { ChannelId, Edit, Plan, PlainEdit, Zone } from '../plan';
import { positionsOf } from './knob';

/** Channels against zones or scan lists, talkgroups against receive lists: what is in what, and the edits that join and part them. */

/** What stands along the top; channels are along the side of zones and scan lists, talkgroups of receive lists. */
export const MATRIX_KINDS = ['zone', 'scanList', 'receiveList'] as const;
export type MatrixKind = (typeof MATRIX_KINDS)[number];

/** A list along the top: how much of it is taken, and how much a radio has. */
export interface MatrixColumn {
  id: string;
  name: string;
  members: ReadonlySet<string>;
  /** Most that one holds on the model; null where it does not say. */
  most: number | null;
}

export interface Matrix {
  kind: MatrixKind;
  rows: readonly { id: string; name: string; detail: number }[];
  columns: readonly MatrixColumn[];
  /** Most columns that the model has. */
  most: number;
}

const LISTS = { zone: 'zones', scanList: 'scanLists', receiveList: 'receiveLists' } as const;

/** How many a list of that kind holds on a model, and how many lists there are; null where the model has none. */
export function roomOf(kind: MatrixKind, model: Model): { lists: number; members: number | null } | null {
  if (kind === 'zone')
    return model.zones && { lists: model.zones.count, members: model.zones.members ?? null };
  if (kind === 'scanList')
    return model.scanLists ? { lists: model.scanLists.count, members: model.scanLists.members } : null;
  const lists = model.digital?.receiveLists;
  return lists ? { lists: lists.count, members: lists.members } : null;
}

/** The kinds that a model has. */
export const matrixKindsOf = (model: Model): MatrixKind[] =>
  MATRIX_KINDS.filter((kind) => roomOf(kind, model) !== null);

/** Rows and columns of a plan on a model. `detail` is the slot of a channel, the number of a talkgroup. */
export function matrixOf(plan: Plan, model: Model, kind: MatrixKind): Matrix {
  const room = roomOf(kind, model);
  return {
    kind,
    rows:
      kind === 'receiveList'
        ? plan.talkgroups
            .filter(({ call }) => call !== 'private')
            .map(({ id, name, number }) => ({ id, name, detail: number }))
        : plan.channels
            .filter(({ list }) => model.lists[list]?.holds === 'channels')
            .map(({ id, name, slot }) => ({ id, name, detail: slot })),
    columns: plan[LISTS[kind]].map(({ id, name, members }) => ({
      ...{ id, name },
      members: new Set<string>(members),
      most: room?.members ?? null,
    })),
    most: room?.lists ?? 0,
  };
}

/** What comes of joining or parting: the edit, or null where nothing changes; how many joined or parted, and how many found no room. */
export interface Joining {
  edit: Edit | null;
  done: number;
  over: number;
}

/** A member of a list that is joined or parted. */
export interface Cell {
  column: string;
  row: string;
}

/**
 * Joins rows to lists, or parts them. Of a list no more are joined than the model has room for; what a zone's knob turned to goes from
 * there with it, and what comes to a zone with a knob gets its first empty position.
 */
export function joining(
  plan: Plan,
  model: Model,
  kind: MatrixKind,
  cells: readonly Cell[],
  on: boolean,
): Joining {
  const wanted = new Map<string, Set<string>>();
  for (const { column, row } of cells) {
    const rows = wanted.get(column);
    if (rows) rows.add(row);
    else wanted.set(column, new Set([row]));
  }
  const most = roomOf(kind, model)?.members ?? Infinity;
  const changes: { id: string; set: object }[] = [];
  let [done, over] = [0, 0];
  for (const list of plan[LISTS[kind]]) {
    const rows = wanted.get(list.id);
    if (!rows) continue;
    const before: readonly string[] = list.members;
    let members: string[];
    if (on) {
      const held = new Set(before);
      const coming = [...rows].filter((row) => !held.has(row));
      const taken = coming.slice(0, Math.max(0, most - before.length));
      over += coming.length - taken.length;
      members = [...before, ...taken];
    } else members = before.filter((row) => !rows.has(row));
    if (members.length === before.length) continue;
    done += Math.abs(members.length - before.length);
    const knob = kind === 'zone' && 'knob' in list && list.knob ? knobOf(list, members, model) : undefined;
    changes.push({ id: list.id, set: { members, ...(knob && { knob }) } });
  }
  // Ids are those of the lists themselves, which TypeScript cannot follow through the kind.
  const edit = changes.length === 0 ? null : ({ name: 'change', kind, changes } as unknown as PlainEdit);
  return { edit, done, over };
}

function knobOf(zone: Zone, members: readonly string[], model: Model): Zone['knob'] {
  const there = new Set(members);
  const places = positionsOf(zone, model).map((id) => (id && there.has(id) ? id : null));
  for (const id of members) {
    if (zone.members.some((before) => before === id)) continue;
    const empty = places.indexOf(null);
    if (empty < 0) break;
    places[empty] = id as ChannelId;
  }
  return places.map((channel) => ({ channel }));
}
