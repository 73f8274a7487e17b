import type { Format } from '../format';
import { format as curlewX1 } from './curlew-x1/format';
import { format as gannetM8 } from './gannet-m8/format';
import { format as kestrelC1 } from './kestrel-c1/format';
import type { Model } from './model.schema';
import { format as ospreyD7 } from './osprey-d7/format';
import { format as petrelHF9 } from './petrel-hf9/format';
import { format as ploverF5 } from './plover-f5/format';
import { format as ternP2 } from './tern-p2/format';
import { format as ternP3 } from './tern-p3/format';

/** How the bytes of each model lie, by its id. Apart from the models themselves: the screens have no use for it. */
const FORMATS: Record<string, Format> = {
  'tern-p2': ternP2,
  'tern-p3': ternP3,
  'gannet-m8': gannetM8,
  'petrel-hf9': petrelHF9,
  'plover-f5': ploverF5,
  'curlew-x1': curlewX1,
  'osprey-d7': ospreyD7,
  'kestrel-c1': kestrelC1,
};

/** The format of a model; every model that Veridon has has one. */
export function formatOf({ id }: Pick<Model, 'id'>): Format {
  const format = FORMATS[id];
  if (!format) throw new Error(`The model ${id} has no format`);
  return format;
}

/** Adds the format of a model that was added; see `addModel`. */
export function addFormat(id: string, format: Format): () => void {
  FORMATS[id] = format;
  return () => void delete FORMATS[id];
}
