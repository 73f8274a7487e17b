import type { Setting } from '../settings';
import { settings as curlewX1 } from './curlew-x1/settings';
import { settings as gannetM8 } from './gannet-m8/settings';
import { settings as kestrelC1 } from './kestrel-c1/settings';
import type { Model } from './model.schema';
import { settings as ospreyD7 } from './osprey-d7/settings';
import { settings as petrelHF9 } from './petrel-hf9/settings';
import { settings as ploverF5 } from './plover-f5/settings';
import { settings as ternP2 } from './tern-p2/settings';
import { settings as ternP3 } from './tern-p3/settings';

/** The settings of each model, by its id, in the order in which they are shown. Apart from the models: pages load those of one model when they need them. */
const SETTINGS: Record<string, readonly Setting[]> = {
  'tern-p2': ternP2,
  'tern-p3': ternP3,
  'gannet-m8': gannetM8,
  'petrel-hf9': petrelHF9,
  'plover-f5': ploverF5,
  'curlew-x1': curlewX1,
  'osprey-d7': ospreyD7,
  'kestrel-c1': kestrelC1,
};

/** The settings of a model; none where it has no list. */
export const settingsOf = ({ id }: Pick<Model, 'id'>): readonly Setting[] => SETTINGS[id] ?? [];

/** Adds the settings of a model that was added; see `addModel`. */
export function addSettings(id: string, settings: readonly Setting[]): () => void {
  SETTINGS[id] = settings;
  return () => void delete SETTINGS[id];
}
