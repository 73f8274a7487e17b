import {
  check,
  contentToWrite,
  countFindings,
  mendsOf,
  type FindingCount,
  type Neighbour,
} from '../core/check';
import { compareBesides, compareContents } from '../core/compare';
import { alikeOf, fit } from '../core/fit';
import { decodeImage, modelOfImage, withUnitValues, type UnitValues } from '../core/image';
import { writeChannels, type OutFormat, type Outgoing } from '../core/interchange';
import { modelById, modelOfPlan, type Model } from '../core/models';
import { type ChannelId, type Plan } from '../core/plan';

/** Heavy work on plans for the server, by name; pure functions of their input. */

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
  /** Which findings are told, and whether with the ways out of each. */
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
    heldBack,
  };
}

/** A plan and the radio that it is to be written to: the values of the unit, its newest copy, and the ID in that copy. */
interface Previewed {
  plan: Plan;
  modelId: string;
  unitOwn: UnitValues;
  copy: { image: Uint8Array; called: string } | null;
  inRadio: number | null;
  neighbours: readonly Neighbour[];
}

/** What a write of a plan would change in a radio, and what is to be said before it. */
function previewOf({ plan: agreed, modelId, unitOwn, copy, inRadio, neighbours }: Previewed) {
  const model = modelFor(agreed, modelId);
  const plan = withUnitValues(agreed, model, unitOwn);
  const own = copy ? modelOfImage(copy.image, model, copy.called) : model;
  const fitted = fit(plan, own);
  const idSetting = model.digital?.ownId;
  const checked =
    idSetting !== undefined && inRadio !== null && plan.settings[model.id]?.[idSetting] === undefined
      ? withUnitValues(plan, model, { [idSetting]: inRadio })
      : plan;
  const findings = check(checked, own, fitted, neighbours);
  const { heldBack, ...content } = contentToWrite(plan, own, fitted, findings);
  const stopped = new Set(heldBack.map(({ id }) => id));
  const held = copy && decodeImage(copy.image, model);
  const byId = new Map(plan.channels.map((channel) => [channel.id, channel]));
  const at = (id: ChannelId) => ({ slot: byId.get(id)!.slot, name: byId.get(id)!.name });
  const set = idSetting !== undefined && content.settings[idSetting];
  return {
    /** The ID that the radio has then. */
    ownId: typeof set === 'number' ? set : inRadio,
    change: held?.ok
      ? compareContents(held.value.channels, content.channels, { was: held.value, is: content })
      : null,
    besides: held?.ok ? compareBesides(held.value, content, model) : [],
    channels: content.channels.length,
    heldBack: heldBack.map(({ id, reasons }) => ({ id, reasons, ...at(id) })),
    cautions: [
      ...findings
        .filter(({ severity }) => severity === 'caution')
        .flatMap((finding) => {
          const { text } = finding;
          if (finding.kind !== 'channel') return { slot: null, name: '', text };
          return stopped.has(finding.id) ? [] : { ...at(finding.id), text };
        }),
    ],
    leftOut: alikeOf(fitted.besides),
  };
}

/** What a write of a plan would change in a copy that can be read. */
function compareOf({
  plan,
  modelId,
  unitOwn,
  copy,
}: Pick<Previewed, 'plan' | 'modelId' | 'unitOwn'> & { copy: { image: Uint8Array; called: string } }) {
  const model = modelFor(plan, modelId);
  const before = decodeImage(copy.image, model);
  if (!before.ok) throw new Error(before.reason);
  const { heldBack: _, ...after } = contentToWrite(
    withUnitValues(plan, model, unitOwn),
    modelOfImage(copy.image, model, copy.called),
  );
  return {
    change: compareContents(before.value.channels, after.channels, { was: before.value, is: after }),
    besides: compareBesides(before.value, after, model),
  };
}

/** How a model holds a plan at a revision, as the JSON of the answer. */
const fitOf = ({ revision, plan, modelId }: Pick<Checked, 'plan' | 'modelId'> & { revision: number }) =>
  JSON.stringify({ revision, fit: fit(plan, modelFor(plan, modelId)) });

/** The number of findings of each severity; empty for an unknown model. */
function countAll({ plan, neighbours }: Pick<Checked, 'plan' | 'neighbours'>): FindingCount[] {
  const model = modelOfPlan(plan);
  if (!model) return [];
  return countFindings(check(plan, model, fit(plan, model), neighbours));
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

export const work = {
  check: checkPart,
  compare: compareOf,
  count: countAll,
  fit: fitOf,
  preview: previewOf,
  write: writeFile,
};

type Work = typeof work;
export type WorkName = keyof Work;
export type WorkInput<N extends WorkName> = Parameters<Work[N]>[0];
export type WorkOutput<N extends WorkName> = Awaited<ReturnType<Work[N]>>;
