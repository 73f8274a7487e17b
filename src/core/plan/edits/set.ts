import { fail, ok } from '../../result';
import { SETTINGS_LIMITS } from '../plan';
import { danglingFault } from '../references';
import { withSettings } from '../setting-changes';
import { defineEdit } from './define';
import type { SetEdit } from './set.schema';

/** Sets settings of radios one by one. Two people who change two settings do not meet. */
export const setSettings = defineEdit<SetEdit>({
  apply(plan, edit) {
    const settings = withSettings(plan.settings, edit.settings);
    const { models, each } = SETTINGS_LIMITS;
    if (Object.keys(settings).length > models)
      return fail(`A plan has settings for ${models} models at most.`);
    if (Object.values(settings).some((values) => Object.keys(values).length > each))
      return fail(`A plan has ${each} settings of a model at most.`);
    const next = { ...plan, settings };
    const lost = danglingFault(next, {});
    return lost === null ? ok(next) : fail(lost);
  },
  label({ settings }) {
    const count = Object.values(settings).reduce((sum, values) => sum + Object.keys(values).length, 0);
    return { of: 'set', n: count };
  },
});
