import { fit } from '../fit';
import type { Model } from '../models';
import type { Plan } from '../plan';
import { check, mendsOf, WIRED, type MendableFinding } from '.';
import type { Neighbour } from './neighbour';

/** What Check says of other records than channels, of how channels are wired to them, and of the plan as a whole; with the ways out. */
export const wiredIn = (plan: Plan, model: Model, neighbours: readonly Neighbour[] = []): MendableFinding[] =>
  check(plan, model, fit(plan, model), neighbours)
    .filter(({ rule }) => WIRED.has(rule))
    .map((finding) => ({ ...finding, mends: mendsOf(finding, plan, model) }));
