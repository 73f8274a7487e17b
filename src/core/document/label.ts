import type { DocumentDifference } from './difference';
import type { GeneralEdit } from './general';
import { countOf } from './record';
import { listIn, type AnyDocument, type Structure } from './shape';

/** What the label of a general edit says: its template, and what goes into it. The words are made of it when it is shown. */
export type GeneralLabel =
  | { of: 'put' | 'remove'; kind: string; n: number; name?: string | undefined }
  | { of: 'change records'; kind: string; n: number; name?: string | undefined; fields: string[] }
  | { of: 'order'; kind: string; n: number }
  | { of: 'restore'; records: Record<string, number>; rest: string }
  | { of: 'go back'; revision: number };

/** How many records a difference puts and removes, by kind. */
export const countsIn = (
  shape: Structure,
  { records }: Pick<DocumentDifference, 'records'>,
): Record<string, number> =>
  Object.fromEntries(
    Object.keys(shape.kinds).flatMap((kind) => {
      const n = (records[kind]?.put?.length ?? 0) + (records[kind]?.remove?.length ?? 0);
      return n > 0 ? [[kind, n]] : [];
    }),
  );

/** The name of the only record that is named, where it is there. */
export function onlyName(
  shape: Structure,
  document: AnyDocument,
  kind: string,
  ids: readonly string[],
): { name?: string } {
  const only = ids.length === 1 ? listIn(shape, document, kind).find(({ id }) => id === ids[0]) : undefined;
  return only ? { name: only.name } : {};
}

/** All fields that some changes set. */
export const fieldsOf = (sets: readonly object[]): string[] => [
  ...new Set(sets.flatMap((set) => Object.keys(set))),
];

/** What the label of a general edit says; `document` is the one that it is run on. */
export function generalLabel(
  shape: Structure,
  edit: Exclude<GeneralEdit, { name: 'describe' }>,
  document: AnyDocument,
): GeneralLabel {
  switch (edit.name) {
    case 'put': {
      const { kind, records } = edit;
      const name = records.length === 1 ? { name: records[0]!.name } : {};
      return { of: 'put', kind, n: records.length, ...name };
    }
    case 'change': {
      const { kind, changes } = edit;
      const name = onlyName(
        shape,
        document,
        kind,
        changes.map(({ id }) => id),
      );
      const fields = fieldsOf(changes.map(({ set }) => set));
      return { of: 'change records', kind, n: changes.length, ...name, fields };
    }
    case 'remove':
      return {
        ...{ of: 'remove', kind: edit.kind, n: edit.ids.length },
        ...onlyName(shape, document, edit.kind, edit.ids),
      };
    case 'order':
      return { of: 'order', kind: edit.kind, n: edit.ids.length };
    case 'restore':
      return { of: 'restore', records: countsIn(shape, edit), rest: edit.head ? 'details' : 'nothing' };
  }
}

/** `“Ketterby”`, `the zone “Team”`, `12 channels`. Records with places of their own are called by their name alone. */
export function targetWords(
  shape: Structure,
  kind: string,
  { n, name }: { n: number; name?: string | undefined },
): string {
  const of = shape.kinds[kind]!;
  if (name === undefined) return countOf(n, of);
  return of.order === 'slots' ? `“${name}”` : `the ${of.words.one} “${name}”`;
}

function restoreWords(shape: Structure, { records, rest }: Extract<GeneralLabel, { of: 'restore' }>): string {
  // In an order of our own: the database keeps the keys of an object in its own.
  const counts = Object.entries(shape.kinds).flatMap(([kind, of]) =>
    records[kind] ? [countOf(records[kind], of)] : [],
  );
  if (counts.length > 0) return `Restore ${counts.join(' and ')}`;
  if (rest === 'details') return `Restore the ${shape.word}’s details`;
  return rest === 'settings' ? 'Restore settings of the radio' : 'Restore nothing';
}

/** The words of a label of a general edit. */
export function generalWords(shape: Structure, parts: GeneralLabel): string {
  switch (parts.of) {
    case 'put':
      return `Add ${targetWords(shape, parts.kind, parts)}`;
    case 'remove':
      return `Remove ${targetWords(shape, parts.kind, parts)}`;
    case 'order':
      return `Order ${countOf(parts.n, shape.kinds[parts.kind]!)}`;
    case 'change records': {
      const { kind, fields } = parts;
      const { fields: words } = shape.kinds[kind]!.words;
      const what = fields.length === 1 ? `${words[fields[0]!]} of ` : '';
      return `Change ${what}${targetWords(shape, kind, parts)}`;
    }
    case 'restore':
      return restoreWords(shape, parts);
    case 'go back':
      return `Go back to revision ${parts.revision}`;
  }
}
