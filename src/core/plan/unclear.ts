import type { MarkedColumn } from './channel';
import type { Channel, ChannelFields } from './channel.schema';

/** Which fields of a channel the cell of a column sets. */
const FIELDS_OF: Record<MarkedColumn, readonly (keyof ChannelFields)[]> = {
  name: ['name'],
  rx: ['rx'],
  tx: ['tx', 'txFixed'],
  access: ['access'],
  mode: ['mode'],
  power: ['power'],
  scan: ['scan'],
};

/**
 * The channel without the texts that its cells kept because they were not understood, for every column whose fields `set` has: whoever sets a value
 * has put the cell right. Where `set` names the texts itself, those stand. A channel without any such text has no field for them.
 */
export function withoutSolvedTexts<C extends Pick<Channel, 'unclear'>>(
  channel: C,
  set: Partial<ChannelFields>,
): C {
  const { unclear, ...rest } = channel;
  if (unclear === undefined) return 'unclear' in channel ? (rest as C) : channel;
  const left = Object.entries(unclear).filter(
    ([column]) =>
      set.unclear !== undefined || !FIELDS_OF[column as MarkedColumn].some((field) => field in set),
  );
  return (left.length === 0 ? rest : { ...rest, unclear: Object.fromEntries(left) }) as C;
}
