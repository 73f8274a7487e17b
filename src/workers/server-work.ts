import {
  check,
  checkBesides,
  contentToWrite,
  countFindings,
  mendsOf,
  type FindingCount,
  type Neighbour,
} from '../core/check';
import { fit } from '../core/fit';
import { writeChannels, type OutFormat, type Outgoing } from '../core/interchange';
import { modelById, modelOfPlan, type Model } from '../core/models';
import type { Plan } from '../core/plan';

/** What the server has worked out beside its own thread, by name: values in, values out. */

/** The model of that id, or without one that of the plan, as the unit is that it is worked on for. */
function modelFor(plan: Plan, modelId: string | undefined): Model {
  const model = modelId === undefined ? modelOfPlan(plan) : modelById(modelId);
  if (!model) throw new Error(`${modelId ?? plan.modelId} is no model.`);
  return model;
}

interface Checked {
  plan: Plan;
  modelId: string | undefined;
  neighbours: readonly Neighbour[];
  /** Which findings of channels are told, and whether with the ways out of each. */
  from: number;
  count: number;
  mends: boolean;
}

function checkPart({ plan, modelId, neighbours, from, count, mends }: Checked) {
  const model = modelFor(plan, modelId);
  const fitted = fit(plan, model);
  const findings = check(plan, model, fitted, neighbours);
  const { heldBack } = contentToWrite(plan, model, fitted, findings);
  return {
    total: findings.length,
    findings: findings
      .slice(from, from + count)
      .map((finding) => ({ ...finding, mends: mends ? mendsOf(finding, plan, model) : [] })),
    besides: checkBesides(plan, model, fitted, neighbours),
    heldBack,
  };
}

/** How many findings of each severity there are, in channels and beside them; none where nobody knows the model. */
function countAll({ plan, neighbours }: Pick<Checked, 'plan' | 'neighbours'>): FindingCount[] {
  const model = modelOfPlan(plan);
  if (!model) return [];
  const fitted = fit(plan, model);
  return countFindings([
    ...check(plan, model, fitted, neighbours),
    ...checkBesides(plan, model, fitted, neighbours),
  ]);
}

/** Channels as a file. */
const writeFile = ({
  format,
  channels,
  name,
}: {
  format: Exclude<OutFormat, 'json'>;
  channels: readonly Outgoing[];
  name: string;
}) => writeChannels(format, channels, name);

export const work = { check: checkPart, count: countAll, write: writeFile };

type Work = typeof work;
export type WorkName = keyof Work;
export type WorkInput<N extends WorkName> = Parameters<Work[N]>[0];
export type WorkOutput<N extends WorkName> = Awaited<ReturnType<Work[N]>>;
