import { describeAccess, formatSquelch, isCalling, OPEN } from '../../radio';
import { channelRule, setMend } from '../finding';

/** A tone or code on a calling channel, where strangers call without one. */
export const toneOnCalling = channelRule(
  'tone-on-calling',
  'tones on calling channels',
  (channel, { plan }) => {
    const { rx, tx, mode, access } = channel;
    if (access.kind !== 'analogue' || (access.send === null && access.expect === null)) return undefined;
    if (!isCalling(rx, mode, plan.owner.region) || (tx !== null && tx !== rx)) return undefined;
    return {
      severity: 'caution',
      field: 'access',
      text: access.expect
        ? `Hears nobody who calls: only stations that send ${formatSquelch(access.expect)} open it, and on the calling channel they send none.`
        : `On the calling channel nobody wants a tone: it ${describeAccess(access)}.`,
      mends: () => [setMend(channel, 'Leave it open', { access: OPEN })],
    };
  },
);
