import type { Plan, Unit, UnitFacts } from '../plan';
import { remembered } from '../remember';
import type { Model } from './model.schema';
import { modelById } from './registry';

const made = remembered((_model: Model) => remembered((_facts: UnitFacts) => new Map<string, Model>()));

/**
 * A model as one unit of it is: it sends between the edges that are set in that unit, and has nothing of what it was bought without.
 * The very same for the same facts, so that what was worked out with it stands.
 */
export function modelOfUnit(model: Model, { called, facts }: Pick<Unit, 'called' | 'facts'>): Model {
  if (!facts) return model;
  const known = made(model)(facts).get(called);
  if (known) return known;
  const lacking = (model.options ?? []).filter(({ name }) => facts.lacks.includes(name));
  const gone = new Set(lacking.flatMap(({ bands = [] }) => bands));
  const one: Model = {
    ...model,
    bands: model.bands
      .filter(({ name }) => !gone.has(name))
      .map((band) => {
        const sends = facts.sends[band.name];
        return sends === undefined ? band : { ...band, transmit: sends };
      }),
    storedShifts: model.storedShifts.filter(({ band }) => !gone.has(band)),
    unit: {
      called,
      without: lacking.flatMap(({ name, settings = [] }) => settings.map((setting) => ({ setting, name }))),
    },
  };
  made(model)(facts).set(called, one);
  return one;
}

/** The model that a plan is for; as the unit is, where it is worked on for one. Undefined where Veridon knows no such model. */
export function modelOfPlan({ modelId, unit }: Pick<Plan, 'modelId' | 'unit'>): Model | undefined {
  const model = modelById(modelId);
  return model && unit ? modelOfUnit(model, unit) : model;
}

/** Megahertz as somebody says them: `144`, `3.5`. */
const mhz = (hz: number) => String(hz / 1e6);

/** What a unit is otherwise than its model, a sentence's part each; empty where it is as every other. */
export function unitWords(model: Model, { region: _, sends, lacks }: UnitFacts): string[] {
  const gone = new Set(
    (model.options ?? []).filter(({ name }) => lacks.includes(name)).flatMap(({ bands = [] }) => bands),
  );
  const otherwise = model.bands.flatMap(({ name, transmit }) => {
    const now = sends[name];
    if (now === undefined || gone.has(name) || (now?.from === transmit?.from && now?.to === transmit?.to))
      return [];
    return [
      now ? `sends on ${name} from ${mhz(now.from)} to ${mhz(now.to)} MHz` : `sends nothing on ${name}`,
    ];
  });
  return [...otherwise, ...lacks.map((name) => `has no ${name}`)];
}

const OF_ITU: Partial<Record<Plan['owner']['region'], number>> = { itu1: 1, itu2: 2, itu3: 3 };

/** What is to be minded where a set of another ITU region than the plan's is used; null where nothing. */
export function regionWords({ region }: UnitFacts, owner: Pick<Plan['owner'], 'region'>): string | null {
  const own = OF_ITU[owner.region];
  return own === undefined || region === own || region < 1 || region > 3
    ? null
    : `It is a set for ITU region ${region}, and the plan is guarded by region ${own}: its own shifts and edges may be others.`;
}
