import { describeAccess, MODE_TRAITS, OPEN } from '../../radio';
import { channelRule, setMend } from '../finding';

/** A colour code on an analogue channel, or a tone on a digital one: it does nothing. */
export const accessWithoutMode = channelRule(
  'access-without-mode',
  'access that the mode cannot send',
  (channel) => {
    const { access, mode } = channel;
    const digitalAccess = access.kind !== 'analogue';
    const analogueAccess = access.kind === 'analogue' && (access.send !== null || access.expect !== null);
    const own = MODE_TRAITS[mode].access;
    if (access.kind === own || (access.kind === 'analogue' && !analogueAccess)) return undefined;
    return {
      severity: 'caution',
      field: 'access',
      text: `Without effect: ${mode} has no ${digitalAccess ? describeAccess(access) : 'tones or codes'}.`,
      mends: () => [setMend(channel, 'Leave it open', { access: OPEN })],
    };
  },
);
