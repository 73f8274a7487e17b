import { formatFrequency } from '../../radio';
import { channelRule } from '../finding';

/** A channel without a name, or with none that the display can write. */
export const emptyName = channelRule('empty-name', 'channels without a name', (channel, { fit }) => {
  const shown = fit.channels.find((fitted) => fitted.id === channel.id)?.name;
  if (channel.name !== '' && shown !== '') return undefined;
  return {
    severity: 'hint',
    field: 'name',
    text:
      channel.name === ''
        ? `Has no name: the radio shows ${formatFrequency(channel.rx)}.`
        : 'The display has none of the letters of this name and shows the frequency.',
  };
});
