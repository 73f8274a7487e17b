import type { Radio } from '@/core/bench';
import { modelById, unitWords } from '@/core/models';

/** What this unit is otherwise than others of its model. */
export function Otherwise({ radio: { modelId, facts } }: { radio: Radio }) {
  const model = modelById(modelId);
  const words = model && facts ? unitWords(model, facts) : [];
  if (words.length === 0) return null;
  return (
    <p className="shrink-0 text-[13px]">
      <b className="font-semibold">Not as every {model!.name}:</b> it {words.join(', ')}. What a plan has
      beyond that is fitted to it.
    </p>
  );
}
