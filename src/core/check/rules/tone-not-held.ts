import {
  citation,
  CODES_SOURCE,
  formatSquelch,
  nearestTone,
  sameCodeOnAir,
  TONES_SOURCE,
  type Access,
  type Squelch,
} from '../../radio';
import type { Model } from '../../models';
import { holdsSquelch, squelches } from '../../fit';
import { channelRule, leaveOut, setMend } from '../finding';

/**
 * What the model has instead: for a tone the nearest, for a code another name of what is heard on air. A code of the
 * nearest number would be another code, and open nothing.
 */
function instead(squelch: Squelch, model: Model): Squelch | undefined {
  if (squelch.kind === 'tone')
    return model.tones.length > 0
      ? { kind: 'tone', tone: nearestTone(squelch.tone, model.tones) }
      : undefined;
  const alike = sameCodeOnAir(squelch.code, squelch.inverted, model.codes, model.invertedCodes);
  return alike && { kind: 'code', ...alike };
}

type Analogue = Extract<Access, { kind: 'analogue' }>;

function mended(access: Analogue, model: Model): Access | undefined {
  const side = (squelch: Squelch | null) =>
    squelch === null || holdsSquelch(squelch, model) ? squelch : instead(squelch, model);
  const send = side(access.send);
  const expect = side(access.expect);
  return send === undefined || expect === undefined ? undefined : { kind: 'analogue', send, expect };
}

/** A tone or code that the radio does not have. */
export const toneNotHeld = channelRule(
  'tone-not-held',
  'tones and codes that the radio lacks',
  (channel, { model, factsOf }) => {
    const { access } = channel;
    if (!factsOf(channel).obstacles.includes('access') || access.kind !== 'analogue') return undefined;
    const odd = squelches(access).find((squelch) => !holdsSquelch(squelch, model))!;
    const shown = formatSquelch(odd) + (odd.kind === 'tone' ? ' Hz' : '');
    const near = instead(odd, model);
    const said = !near
      ? ', and nothing that is the same on air'
      : odd.kind === 'tone'
        ? `, the nearest is ${formatSquelch(near)}`
        : `; ${formatSquelch(near)} is the same on air`;
    const other = mended(access, model);
    const hearing = access.send === null || holdsSquelch(access.send, model);
    return {
      severity: 'stop',
      field: 'access',
      text: `Opens nothing: the ${model.name} has no ${shown}${said}.`,
      source: citation(odd.kind === 'tone' ? TONES_SOURCE : CODES_SOURCE),
      mends: () => [
        ...(other && near ? [setMend(channel, `Use ${formatSquelch(near)}`, { access: other })] : []),
        ...(hearing
          ? [setMend(channel, 'Hear everybody there', { access: { ...access, expect: null } })]
          : []),
        leaveOut(channel),
      ],
    };
  },
);
