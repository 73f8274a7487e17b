import type { CopyComparison } from '../core/bench';
import { compareBesides, compareContents } from '../core/compare';
import { byteDifferences, decodeImage, type ToWrite } from '../core/image';
import { modelById, type Model } from '../core/models';
import type { PlanId } from '../core/plan';
import { computeInThread } from './compute-thread';
import { getCopy } from './copies';
import { viewThen } from './marks';
import { getView } from './plans';
import { Problem } from './problem';
import { radioOf } from './radios';

/** A sealed copy held against another, of the same unit or another of its model, or against a plan as it would be written. */

function contentOf(copy: { image: Uint8Array; called: string }, model: Model) {
  const read = decodeImage(copy.image, model);
  if (!read.ok)
    throw new Problem(
      422,
      'copy-unreadable',
      'This copy cannot be read',
      `The copy of ${copy.called}: ${read.reason}`,
    );
  return read.value;
}

export async function compareCopy(
  id: string,
  against: { copy?: string | undefined; plan?: PlanId | undefined; revision?: number | undefined },
): Promise<CopyComparison> {
  const copy = await getCopy(id);
  const model = modelById(copy.modelId)!;
  const before = contentOf(copy, model);
  const held = (after: ToWrite) => ({
    change: compareContents(before.channels, after.channels, { was: before, is: after }),
    besides: compareBesides(before, after, model),
  });
  if (against.plan !== undefined) {
    const { plan } = await (against.revision === undefined
      ? getView(against.plan)
      : viewThen(against.plan, against.revision));
    const { own } = await radioOf(copy.radioId);
    const { image, called } = copy;
    const compared = await computeInThread('compare', {
      ...{ plan, modelId: model.id, unitOwn: own, copy: { image, called } },
    });
    const then = against.revision === undefined ? '' : `, revision ${against.revision}`;
    return { called: `the plan “${plan.name}”${then}`, ...compared, bytes: null };
  }
  const other = await getCopy(against.copy!);
  if (other.modelId !== copy.modelId)
    throw new Problem(
      422,
      'other-unit',
      'They are of different models',
      `One copy is of ${copy.called}, the other of ${other.called}: their bytes lie otherwise. Make a plan of one and hold it against that.`,
    );
  const { at, areas } = byteDifferences(copy.image, other.image, model);
  return {
    called: `${other.called}, ${other.takenAt.toISOString()}`,
    ...held(contentOf(other, model)),
    bytes: {
      of: copy.image.length,
      different: at.length,
      areas: areas.flatMap(({ label, changed }) => (changed === 0 ? [] : [{ label, different: changed }])),
    },
  };
}
