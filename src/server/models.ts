import { findModels as findSold, MODELS, type Model } from '../core/models';

/** The models that are sold under a name with this text in it; all of them for an empty one. */
export function findModels(text: string): Model[] {
  const found = new Set(findSold(text).map(({ model }) => model.id));
  return MODELS.filter((model) => found.has(model.id));
}
