import type { ImportAnswer } from '../api';
import { readFile, type FileContent } from '../core/interchange';
import { receiveRanges, sidesOf, slotsOf } from '../core/models';
import { makeId, type NewChannel, type PlanId } from '../core/plan';
import { newRows, placeWhatFits, rowsByMeaning, type NewRows, type PastedRow } from '../core/table';
import { NOBODY, type Asker } from './once';
import { getPlan, wantModel } from './plans';
import { Problem } from './problem';
import { editPlan } from './revisions';

const newId = () => makeId('ch', crypto.getRandomValues(new Uint8Array(12)));

/** The rows of stations that a file has; a plan's channels are whole already. */
const rowsOf = (content: Exclude<FileContent, { kind: 'plan' }>): PastedRow[] =>
  content.kind === 'places'
    ? content.rows
    : rowsByMeaning(content.table.meanings, content.table.rows, (row) => content.table.lines[row]!);

/**
 * Takes the stations of a file into a plan, as the page does it: what is understood goes in as one edit, what finds no slot is left over,
 * and what is not understood is answered with its line and reason.
 */
export async function importFile(
  { base64, plan: id }: { base64: string; plan: PlanId },
  asker: Asker = NOBODY,
): Promise<ImportAnswer> {
  const read = readFile(new Uint8Array(Buffer.from(base64, 'base64')));
  if (!read.ok) throw new Problem(422, 'unreadable', 'The file cannot be read', read.reason);
  const { plan, revision } = await getPlan(id);
  const model = wantModel(plan.modelId);
  const content = read.value;
  const made: NewRows =
    content.kind === 'plan'
      ? {
          channels: content.channels.map(({ slot: _, list: _list, ...fields }): NewChannel => ({
            ...fields,
            id: newId(),
          })),
          ...{ odd: [], refused: [], notes: [] },
        }
      : newRows(
          rowsOf(content),
          { region: plan.owner.region, bands: receiveRanges(model), powers: model.powers },
          newId,
        );
  const nameOf = new Map(made.channels.map((channel) => [channel.id, channel.name]));
  const odd = made.odd.map(({ id: of, column, text, reason }) => ({
    channel: nameOf.get(of) ?? '',
    ...{ column, text, reason },
  }));
  if (made.channels.length === 0)
    return { revision, label: null, placed: 0, over: 0, odd, refused: made.refused };
  const [list = 0] = sidesOf(model);
  const range = slotsOf(model, list) ?? model.slots;
  const { edit, placed, over } = placeWhatFits(plan, made.channels, {
    placement: 'next-free',
    at: range.first,
    range,
    list,
  });
  const kept = await editPlan(id, revision, edit, asker);
  return { revision: kept.revision, label: kept.label, placed, over, odd, refused: made.refused };
}
