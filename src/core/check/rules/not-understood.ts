import { FIELD_NAMES, MARKED_COLUMNS } from '../../plan';
import { channelRule, setMend } from '../finding';

/** A cell keeps what was typed because nobody understood it: what the channel would do instead is not what was meant. */
export const notUnderstood = channelRule('not-understood', 'cells that are not understood', (channel) => {
  const { unclear } = channel;
  const [first, ...others] = MARKED_COLUMNS.filter((column) => unclear?.[column] !== undefined);
  if (first === undefined) return undefined;
  const also =
    others.length === 0 ? '' : `, nor is ${others.map((column) => FIELD_NAMES[column]).join(', ')}`;
  return {
    severity: 'stop',
    field: first,
    text: `“${unclear![first]}” in ${FIELD_NAMES[first]} is not understood${also}. Type it again; until then this channel is not written.`,
    mends: () => [setMend(channel, 'Drop what was typed', { unclear: {} })],
  };
});
