import type { Format } from '../format';
import type { Model } from './model.schema';
import { format as ternP2 } from './tern-p2/format';
import { format as ternP3 } from './tern-p3/format';

/** How the bytes of each model lie, by its id. Apart from the models themselves: the screens have no use for it. */
const FORMATS: Readonly<Record<string, Format>> = { 'tern-p2': ternP2, 'tern-p3': ternP3 };

/** The format of a model; every model that Veridon has has one. */
export function formatOf({ id }: Pick<Model, 'id'>): Format {
  const format = FORMATS[id];
  if (!format) throw new Error(`The model ${id} has no format`);
  return format;
}
