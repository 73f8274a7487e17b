import type { Model } from '../models';
import { fail, ok, type Result } from '../result';

/**
 * The memory of their own in which some radios keep people: a head of 16 bytes, then a row each, by number upwards, in which the radio
 * halves its way to whoever calls. docs/models/osprey-d7.md has it for people.
 */

/** Somebody as a radio shows them: a number of 24 bits, and a name in the radio's characters. */
export interface ShownName {
  id: number;
  name: string;
}

/** What a memory for people has to know of its model. */
export type PeopleModel = Pick<Model, 'name' | 'names' | 'digital'>;

const HEAD_BYTES = 16;
const SIGNATURE_BYTES = 8;
const ID_BYTES = 4;

/** The memory of its own that a model has for people; undefined where it has none. */
export const peopleMemoryOf = ({ digital }: PeopleModel) =>
  digital?.people.where === 'apart' ? digital.people : undefined;

function memoryOf(model: PeopleModel) {
  const memory = peopleMemoryOf(model);
  if (!memory) throw new Error(`A ${model.name} has no memory for people`);
  return { ...memory, row: ID_BYTES + memory.name };
}

/** How many bytes so many people take in a radio. */
export const peopleBytes = (people: number, model: PeopleModel): number =>
  HEAD_BYTES + people * memoryOf(model).row;

/** How many bytes the memory for people of a model has. */
export const peopleRoom = (model: PeopleModel): number => peopleBytes(memoryOf(model).count, model);

/**
 * The memory for people with these in it, by number: no number twice, no name longer than the radio shows or with other characters than it
 * has, no more people than it has room for.
 */
export function encodePeople(people: readonly ShownName[], model: PeopleModel): Uint8Array {
  const { count, name: length, row, signature } = memoryOf(model);
  if (people.length > count) throw new Error(`A ${model.name} has room for ${count} people`);
  const bytes = new Uint8Array(peopleBytes(people.length, model)).fill(0x20, HEAD_BYTES);
  const view = new DataView(bytes.buffer);
  for (let at = 0; at < SIGNATURE_BYTES; at++) bytes[at] = signature.charCodeAt(at);
  view.setUint32(SIGNATURE_BYTES, people.length, true);
  let at = HEAD_BYTES;
  let before = 0;
  for (const { id, name } of [...people].sort((a, b) => a.id - b.id)) {
    if (id === before) throw new Error(`Number ${id} is there twice`);
    if (name.length > length) throw new Error(`“${name}” is longer than ${length} characters`);
    view.setUint32(at, id, true);
    for (let i = 0; i < name.length; i++) bytes[at + ID_BYTES + i] = name.charCodeAt(i);
    at += row;
    before = id;
  }
  return bytes;
}

/** How many people a memory says that it holds; undefined where it is none of this model's. */
function countIn(bytes: Uint8Array, model: PeopleModel): number | undefined {
  const { count, signature } = memoryOf(model);
  if (bytes.length < HEAD_BYTES) return undefined;
  for (let at = 0; at < SIGNATURE_BYTES; at++) if (bytes[at] !== signature.charCodeAt(at)) return undefined;
  const people = viewOf(bytes).getUint32(SIGNATURE_BYTES, true);
  return people <= count && bytes.length >= peopleBytes(people, model) ? people : undefined;
}

const viewOf = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);

function nameIn(bytes: Uint8Array, at: number, length: number): string {
  let name = '';
  for (let i = at + ID_BYTES; i < at + ID_BYTES + length; i++) name += String.fromCharCode(bytes[i]!);
  return name.trimEnd();
}

/** Reads a memory for people; fails for what is none, or is out of order, so that the radio would not find them. */
export function decodePeople(bytes: Uint8Array, model: PeopleModel): Result<ShownName[]> {
  const people = countIn(bytes, model);
  if (people === undefined) return fail(`This is no ${model.name}'s memory for people, or it is cut off.`);
  const { name: length, row } = memoryOf(model);
  const view = viewOf(bytes);
  const read: ShownName[] = [];
  for (let at = HEAD_BYTES; read.length < people; at += row) {
    const id = view.getUint32(at, true);
    if (id <= (read.at(-1)?.id ?? 0))
      return fail(`Person ${read.length + 1} has the number ${id}, which is out of order.`);
    read.push({ id, name: nameIn(bytes, at, length) });
  }
  return ok(read);
}

/** The name that a radio shows for a number, as it finds it; undefined where it has nobody of that number. */
export function nameOfPerson(bytes: Uint8Array, id: number, model: PeopleModel): string | undefined {
  const { name: length, row } = memoryOf(model);
  let [from, to] = [0, countIn(bytes, model) ?? 0];
  const view = viewOf(bytes);
  while (from < to) {
    const middle = (from + to) >> 1;
    const at = HEAD_BYTES + middle * row;
    const there = view.getUint32(at, true);
    if (there === id) return nameIn(bytes, at, length);
    if (there < id) from = middle + 1;
    else to = middle;
  }
  return undefined;
}
