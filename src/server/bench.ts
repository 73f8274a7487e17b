import { desc } from 'drizzle-orm';
import type { Bench, WritePreview } from '../core/bench';
import { check, checkBesides, contentToWrite } from '../core/check';
import { compareBesides, compareContents } from '../core/compare';
import { decodeImage, modelOfImage, withUnitValues } from '../core/image';
import { alikeOf, fit } from '../core/fit';
import { isNewer, modelById } from '../core/models';
import type { PlanId, RadioId } from '../core/plan';
import { radios } from '../db';
import { listCopies, newestCopy } from './copies';
import { reading } from './database';
import { withBrokenOff } from './may-write';
import { areaOf, neighboursOf } from './neighbours';
import { othersWithId, ownIdIn } from './own-ids';
import { getPlan } from './plans';
import { lookAtPorts, lyingUnplugged } from './ports';
import { calledOf, radioOf } from './radios';

/** The bench: ports with who is on them, and every radio that has been here. */
export async function lookAtBench(): Promise<Bench> {
  const [{ ports, reachable }, lying] = await Promise.all([lookAtPorts(), lyingUnplugged()]);
  const database = await reading();
  const rows = await database.select().from(radios).orderBy(desc(radios.lastSeen));
  const sealed = await listCopies();
  const broken = await withBrokenOff();
  return {
    reachable,
    ports,
    lying,
    // Those that are here stand where their ports do, whichever answered last.
    radios: rows
      .map((row) => {
        const model = modelById(row.modelId);
        return {
          id: row.id,
          serial: row.serial,
          called: calledOf(row),
          modelId: row.modelId,
          model: modelNameOf(row.modelId),
          firmware: row.firmware,
          newerThan: model && isNewer(row.firmware, model) ? model.firmware : null,
          battery: row.battery,
          region: row.region,
          facts: row.facts,
          label: row.label,
          own: row.own,
          canResume: row.state === 'half written' && broken.has(row.id),
          state: row.state,
          lastSeen: row.lastSeen.toISOString(),
          port: ports.find((port) => port.radioId === row.id)?.name ?? null,
          copies: sealed.filter((copy) => copy.radioId === row.id),
        };
      })
      .sort(
        (a, b) =>
          (a.port === null ? 1 : 0) - (b.port === null ? 1 : 0) || (a.port ?? '').localeCompare(b.port ?? ''),
      ),
  };
}

/** A model as people call it; by its id where this Veridon knows none of that id. */
function modelNameOf(modelId: string): string {
  const model = modelById(modelId);
  return model ? `${model.maker} ${model.name}` : modelId;
}

/** What a write of a plan would change in a radio, as far as its newest copy tells. */
export async function previewWrite(radioId: RadioId, planId: PlanId): Promise<WritePreview> {
  const radio = await radioOf(radioId);
  const model = modelById(radio.modelId)!;
  const { plan: agreed, revision } = await getPlan(planId);
  const plan = withUnitValues(agreed, model, radio.own);
  const copy = await newestCopy(radioId);
  const own = copy ? modelOfImage(copy.image, model, copy.called) : model;
  const fitted = fit(plan, own);
  // An ID that the radio has, and that nothing replaces, stays: nobody need be warned.
  const inRadio = copy ? ownIdIn(copy.image, model) : null;
  const idSetting = model.digital?.ownId;
  const checked =
    idSetting !== undefined && inRadio !== null && plan.settings[model.id]?.[idSetting] === undefined
      ? withUnitValues(plan, model, { [idSetting]: inRadio })
      : plan;
  // All that Check knows on the plan's own page: the repeaters near by too.
  const neighbours = await neighboursOf(areaOf(plan));
  const findings = check(checked, own, fitted, neighbours);
  const { heldBack, ...content } = contentToWrite(plan, own, fitted, findings);
  const stopped = new Set(heldBack.map(({ id }) => id));
  const held = copy && decodeImage(copy.image, model);
  const byId = new Map(plan.channels.map((channel) => [channel.id, channel]));
  const set = idSetting !== undefined && content.settings[idSetting];
  const ownId = typeof set === 'number' ? set : inRadio;
  const alike = ownId ? await othersWithId(radioId, ownId) : [];
  return {
    radioId,
    planName: plan.name,
    planRevision: revision,
    workedOnFor: plan.unit && plan.unit.radio !== radioId ? plan.unit.called : null,
    madeForModel: plan.modelId === model.id ? null : modelNameOf(plan.modelId),
    change: held?.ok
      ? compareContents(held.value.channels, content.channels, { was: held.value, is: content })
      : null,
    besides: held?.ok ? compareBesides(held.value, content, model) : [],
    channels: content.channels.length,
    heldBack: heldBack.map(({ id, reasons }) => ({
      id,
      reasons,
      name: byId.get(id)!.name,
      slot: byId.get(id)!.slot,
    })),
    cautions: [
      ...findings
        .filter(({ id, severity }) => severity === 'caution' && !stopped.has(id))
        .map(({ id, text }) => ({ slot: byId.get(id)!.slot, name: byId.get(id)!.name, text })),
      ...checkBesides(checked, own, fitted, neighbours)
        .filter(({ severity }) => severity === 'caution')
        .map(({ text }) => ({ slot: null, name: '', text })),
      ...alike.map((called) => ({
        ...{ slot: null, name: '' },
        text: `Its own ID ${ownId} is that of ${called} too: nobody can tell the two apart, and a network takes them for one.`,
      })),
    ],
    leftOut: alikeOf(fitted.besides),
  };
}
