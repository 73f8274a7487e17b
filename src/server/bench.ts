import { desc } from 'drizzle-orm';
import type { Bench, WritePreview } from '../core/bench';
import { isNewer, modelById } from '../core/models';
import type { PlanId, RadioId } from '../core/plan';
import { radios } from '../db';
import { computeInThread } from './compute-thread';
import { listCopies, newestCopy } from './copies';
import { reading } from './database';
import { withBrokenOff } from './may-write';
import { areaOf, neighboursOf } from './neighbours';
import { othersWithId, ownIdIn } from './own-ids';
import { getView } from './plans';
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
  const { plan, revision } = await getView(planId);
  const copy = await newestCopy(radioId);
  // An ID that the radio has, and that nothing replaces, stays: nobody need be warned.
  const inRadio = copy ? ownIdIn(copy.image, model) : null;
  const { ownId, cautions, ...preview } = await computeInThread('preview', {
    ...{ plan, modelId: model.id, unitOwn: radio.own, inRadio },
    copy: copy ? { image: copy.image, called: copy.called } : null,
    // All that Check knows on the plan's own page: the repeaters near by too.
    neighbours: await neighboursOf(areaOf(plan)),
  });
  const alike = ownId ? await othersWithId(radioId, ownId) : [];
  return {
    radioId,
    planName: plan.name,
    planRevision: revision,
    workedOnFor: plan.unit && plan.unit.radio !== radioId ? plan.unit.called : null,
    madeForModel: plan.modelId === model.id ? null : modelNameOf(plan.modelId),
    ...preview,
    cautions: [
      ...cautions,
      ...alike.map((called) => ({
        ...{ slot: null, name: '' },
        text: `Its own ID ${ownId} is that of ${called} too: nobody can tell the two apart, and a network takes them for one.`,
      })),
    ],
  };
}
