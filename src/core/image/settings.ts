import type { Codec } from '../format';
import type { Model } from '../models';
import { formatOf } from '../models/formats';
import type { SettingInfo } from './settings.schema';

function rangeOf(codec: Codec) {
  switch (codec.kind) {
    case 'choice':
      return { kind: 'choice' as const, values: [...codec.values] };
    case 'word':
      return { kind: 'choice' as const, values: codec.words.map(({ value }) => value) };
    case 'text':
      return { kind: 'text' as const, length: codec.bytes };
    case 'bcd':
      return { kind: 'number' as const, unit: codec.unit, most: (100 ** codec.bytes - 1) * codec.unit };
    case 'digits':
      return { kind: 'number' as const, unit: codec.unit, most: (10 ** codec.bytes - 1) * codec.unit };
    case 'flag':
      return { kind: 'choice' as const, values: [false, true] };
    default:
      return undefined;
  }
}

/** The settings of a model that a plan can set, in the order in which they lie. */
export const settingsOfModel = (model: Model): SettingInfo[] =>
  formatOf(model).settings.flatMap(({ key, label, codec }) => {
    const range = rangeOf(codec);
    return range ? [{ key, label, restart: model.restartAfter.includes(key), ...range }] : [];
  });
