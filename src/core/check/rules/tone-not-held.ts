import { formatSquelch, nearestCode, nearestTone, type Access, type Squelch } from '../../radio';
import type { Model } from '../../models';
import { holdsSquelch, squelches } from '../../fit';
import { channelRule, setMend } from '../finding';

function nearest(squelch: Squelch, model: Model): Squelch | undefined {
  if (squelch.kind === 'tone')
    return model.tones.length > 0
      ? { kind: 'tone', tone: nearestTone(squelch.tone, model.tones) }
      : undefined;
  if (model.codes.length === 0) return undefined;
  return {
    ...squelch,
    code: nearestCode(squelch.code, model.codes),
    inverted: squelch.inverted && model.invertedCodes,
  };
}

function mended(access: Access, model: Model): Access | undefined {
  if (access.kind !== 'analogue') return undefined;
  const side = (squelch: Squelch | null) =>
    squelch === null || holdsSquelch(squelch, model) ? squelch : nearest(squelch, model);
  const send = side(access.send);
  const expect = side(access.expect);
  return send === undefined || expect === undefined ? undefined : { kind: 'analogue', send, expect };
}

/** A tone or code that the radio does not have. */
export const toneNotHeld = channelRule(
  'tone-not-held',
  'tones and codes that the radio lacks',
  (channel, { model }) => {
    const odd = squelches(channel.access).find((squelch) => !holdsSquelch(squelch, model));
    if (!odd) return undefined;
    const access = mended(channel.access, model);
    const shown = formatSquelch(odd) + (odd.kind === 'tone' ? ' Hz' : '');
    const near = nearest(odd, model);
    return {
      severity: 'stop',
      field: 'access',
      text: `Opens nothing: the ${model.name} has no ${shown}${near ? `, the nearest is ${formatSquelch(near)}` : ''}.`,
      ...(access && near && { mend: setMend(channel, `Use ${formatSquelch(near)}`, { access }) }),
    };
  },
);
