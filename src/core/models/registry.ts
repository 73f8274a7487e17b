import { curlewX1 } from './curlew-x1';
import { gannetM8 } from './gannet-m8';
import { kestrelC1 } from './kestrel-c1';
import type { Model } from './model.schema';
import { ospreyD7 } from './osprey-d7';
import { petrelHF9 } from './petrel-hf9';
import { ploverF5 } from './plover-f5';
import { ternP2 } from './tern-p2';
import { ternP3 } from './tern-p3';

const models: Model[] = [ternP2, ternP3, gannetM8, petrelHF9, ploverF5, curlewX1, ospreyD7, kestrelC1];

/** Every model that Veridon has, in the order in which it is shown. */
export const MODELS: readonly Model[] = models;

/** Adds a model to those that there are; gives back what takes it away again. For tests: Veridon’s own stand in the list above. */
export function addModel(model: Model): () => void {
  models.push(model);
  return () => void models.splice(models.indexOf(model), 1);
}

/** The model with that id, or undefined. */
export function modelById(id: string): Model | undefined {
  return MODELS.find((model) => model.id === id);
}

/** The models whose radios identify themselves with these 8 characters: none, one, or several that answer alike. */
export const modelsByIdent = (ident: string): Model[] =>
  MODELS.filter((model) => model.link?.ident === ident);

/** The model whose radios identify themselves with these 8 characters, or undefined; the first of several. */
export const modelByIdent = (ident: string): Model | undefined => modelsByIdent(ident)[0];

/** Models whose name, maker or other trade name holds `text`, in any case. */
export function findModels(text: string): { model: Model; soldAs: string }[] {
  const wanted = text.trim().toLowerCase();
  return MODELS.flatMap((model) =>
    [{ name: model.name, maker: model.maker }, ...model.alsoSoldAs]
      .map(({ name, maker }) => ({ model, soldAs: `${maker} ${name}` }))
      .filter(({ soldAs }) => soldAs.toLowerCase().includes(wanted)),
  );
}
