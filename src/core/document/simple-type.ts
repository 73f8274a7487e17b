import { z } from 'zod';
import { applied, type DocumentDifference } from './difference';
import { changeRecords, describeDocument, orderRecords, putRecords, removeRecords } from './edits';
import type { GeneralEdit } from './general';
import { generalLabel, generalWords, type GeneralLabel } from './label';
import { parsing } from '../parsing';
import { ok } from '../result';
import type { AnyDocument, Shape } from './shape';
import type { DocumentType } from './type';

const which = { n: z.int().min(0), name: z.string().optional() };

/** What the log has of the label of a general edit. */
const labelSchema = (kinds: readonly string[]) => {
  const kind = z.enum(kinds);
  return z.discriminatedUnion('of', [
    z.object({ of: z.enum(['put', 'remove']), kind, ...which }),
    z.object({ of: z.literal('change records'), kind, ...which, fields: z.array(z.string()) }),
    z.object({ of: z.literal('order'), kind, n: z.int() }),
    z.object({ of: z.literal('restore'), records: z.record(z.string(), z.int()), rest: z.string() }),
    z.object({ of: z.literal('describe'), field: z.string() }),
    z.object({ of: z.literal('go back'), revision: z.int() }),
  ]);
};

/** The schema of the general edits of a shape. */
function editSchemaOf({ kinds, schemas, head }: Shape): z.ZodType<GeneralEdit> {
  const names = Object.keys(kinds) as [string, ...string[]];
  /** One of the alternatives for each kind. */
  const each = (of: (kind: string) => z.ZodRawShape) =>
    z.union(names.map((kind) => z.strictObject({ kind: z.literal(kind), ...of(kind) })));
  const idOf = (kind: string) => schemas[kind]!.id;
  const idsOf = (kind: string) => z.array(idOf(kind)).max(kinds[kind]!.limit);
  const recordsOf = (kind: string) => z.array(schemas[kind]!.record).max(kinds[kind]!.limit);
  const named = <N extends string>(name: N) => ({ name: z.literal(name) });
  const difference = Object.fromEntries(
    names.map((kind) => [
      kind,
      z.strictObject({ put: recordsOf(kind), remove: idsOf(kind), order: idsOf(kind).optional() }).optional(),
    ]),
  );
  return z.union([
    each((kind) => ({ ...named('put'), records: recordsOf(kind).min(1), before: idOf(kind).nullable() })),
    each((kind) => ({
      ...named('change'),
      changes: z
        .array(z.object({ id: idOf(kind), set: schemas[kind]!.fields.partial().strict() }))
        .min(1)
        .max(kinds[kind]!.limit),
    })),
    each((kind) => ({ ...named('remove'), ids: idsOf(kind).min(1) })),
    each((kind) => ({ ...named('order'), ids: idsOf(kind).min(1), before: idOf(kind).nullable() })),
    z.strictObject({ ...named('describe'), set: head.partial().strict() }),
    z.strictObject({
      ...named('restore'),
      records: z.strictObject(difference),
      head: head.partial().strict().optional(),
    }),
  ]) as unknown as z.ZodType<GeneralEdit>;
}

/** A type of document that is changed by the general edits alone. */
export function simpleType<D extends AnyDocument>(
  name: string,
  idPrefix: string,
  shape: Shape,
): DocumentType<D, GeneralEdit> & { editSchema: z.ZodType<GeneralEdit> } {
  const editSchema = editSchemaOf(shape);
  const labels = labelSchema(Object.keys(shape.kinds));
  return {
    ...{ name, idPrefix, shape, editSchema },
    apply(document, edit) {
      switch (edit.name) {
        case 'put':
          return putRecords(shape, document, edit.kind, edit.records, edit.before);
        case 'change':
          return changeRecords(shape, document, edit.kind, edit.changes);
        case 'remove':
          return removeRecords(shape, document, edit.kind, edit.ids);
        case 'order':
          return orderRecords(shape, document, edit.kind, edit.ids, edit.before);
        case 'describe':
          return ok(describeDocument(shape, document, edit.set));
        case 'restore':
          return applied(shape, document, edit);
      }
    },
    label: (edit, document) =>
      edit.name === 'describe'
        ? { of: 'describe', field: Object.keys(edit.set)[0] ?? 'details' }
        : generalLabel(shape, edit, document),
    labelWords(label) {
      const read = labels.safeParse(label);
      if (!read.success) return null;
      const parts = read.data;
      return parts.of === 'describe'
        ? `Change ${parts.field} of the ${shape.word}`
        : generalWords(shape, parts as GeneralLabel);
    },
    *readingEdit(value) {
      const parsed = yield* parsing(editSchema, value);
      if ('issues' in parsed) throw new z.ZodError([...parsed.issues]);
      return parsed.data;
    },
    restoring: (difference: DocumentDifference) => ({ name: 'restore', ...difference }),
  };
}
