import { findModels as findSold, modelById, MODELS, type Model } from '../core/models';
import { Problem } from './problem';

/** The models that are sold under a name with this text in it; all of them for an empty one. */
export function findModels(text: string): Model[] {
  const found = new Set(findSold(text).map(({ model }) => model.id));
  return MODELS.filter((model) => found.has(model.id));
}

/** A model by its id, or the problem that names those there are. */
export function wantModel(id: string): Model {
  const model = modelById(id);
  if (!model)
    throw new Problem(
      422,
      'unknown-model',
      'Unknown model',
      `Veridon knows no model “${id}”. GET /api/models lists those it knows.`,
    );
  return model;
}
