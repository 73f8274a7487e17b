import { channelsIn, readFile, type FileContent } from '../core/interchange';
import { modelById, receiveRanges, slotRanges } from '../core/models';
import { applyEdit, type Edit, type Plan } from '../core/plan';
import { fail, ok, type Result } from '../core/result';
import { placeInSlots, placeWhatFits, type NewRows, type Placing } from '../core/table';
import { NEW_IDS } from './new-ids';

/** Rows, and cells, that are not understood are listed: so many of them. */
export const LISTED = 200;

/** A file, and the plan that its stations go into. */
export interface StationsWish {
  bytes: Uint8Array;
  /** null where none is named, which a file that is a plan itself does not need. */
  into: Plan | null;
  /** Into the slots that the file names, as far as they are free, or the next free ones. */
  slots: 'as in the file' | 'next free';
}

/** The result of importing rows. */
export interface RowsTold {
  placed: number;
  /** Channels that found no slot. */
  over: number;
  odd: { channel: string; column: string; text: string; reason: string }[];
  refused: { line: number; text: string; reason: string }[];
}

export type StationsRead =
  | { kind: 'plan'; plan: Plan }
  | { kind: 'no plan named' }
  /** `edit` puts the channels into the plan, and `filled` is what it has then; null where no channel came of the file. */
  | {
      kind: 'rows';
      edit: Edit | null;
      filled: Pick<Plan, 'channels' | 'leftOver'> | null;
      told: RowsTold;
    };

/** The channels of a file for the plan's radio, and how they are placed into the plan. */
function incoming(
  content: FileContent,
  plan: Plan,
  slots: StationsWish['slots'],
): { made: NewRows; placing: Placing | null } {
  const model = modelById(plan.modelId)!;
  const context = { region: plan.owner.region, bands: receiveRanges(model), powers: model.powers };
  const made = channelsIn(content, context, NEW_IDS.channel);
  if (made.channels.length === 0) return { made, placing: null };
  const lists = slotRanges(model);
  const { list, range } = lists[0]!;
  return {
    made,
    placing:
      slots === 'as in the file' && made.slots.size > 0
        ? placeInSlots(plan, made.channels, made.slots, lists)
        : placeWhatFits(plan, made.channels, { placement: 'next-free', at: range.first, range, list }),
  };
}

function rowsTold(made: NewRows, placing: Placing | null): RowsTold {
  const nameOf = new Map(made.channels.map((channel) => [channel.id, channel.name]));
  return {
    placed: placing?.placed ?? 0,
    over: placing?.over ?? 0,
    odd: made.odd.slice(0, LISTED).map(({ id, ...rest }) => ({ channel: nameOf.get(id) ?? '', ...rest })),
    refused: made.refused.slice(0, LISTED),
  };
}

/** Reads a file of stations, and works out the edit that puts them into a plan. */
export async function readStations({ bytes, into, slots }: StationsWish): Promise<Result<StationsRead>> {
  const read = await readFile(bytes);
  if (!read.ok) return read;
  if (read.value.kind === 'plan' && into === null) return ok({ kind: 'plan', plan: read.value.plan });
  if (into === null) return ok({ kind: 'no plan named' });
  const { made, placing } = incoming(read.value, into, slots);
  const told = rowsTold(made, placing);
  if (!placing) return ok({ kind: 'rows', edit: null, filled: null, told });
  const filled = applyEdit(into, placing.edit);
  if (!filled.ok) return fail(filled.reason);
  const { channels, leftOver } = filled.value;
  return ok({ kind: 'rows', edit: placing.edit, filled: { channels, leftOver }, told });
}
