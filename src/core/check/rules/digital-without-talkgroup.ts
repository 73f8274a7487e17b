import { channelRule, setMend } from '../finding';
import { hasTalkgroups, isDigital } from '../../radio';

/** A digital channel that sends to no talkgroup: the key opens the repeater, and nobody hears anything. */
export const digitalWithoutTalkgroup = channelRule(
  'digital-without-talkgroup',
  'digital channels that call nobody',
  ({ mode, tx, talkgroup }) =>
    hasTalkgroups(mode) && tx !== null && !talkgroup
      ? { severity: 'caution', field: 'access', text: 'Calls nobody: it has no talkgroup.' }
      : undefined,
  ({ digital }) => digital !== undefined,
);

/** A digital channel without a receive list hears its own talkgroup and nothing else. */
export const digitalWithoutReceiveList = channelRule(
  'digital-without-receive-list',
  'digital channels without a receive list',
  ({ mode, receiveList }) =>
    hasTalkgroups(mode) && !receiveList
      ? {
          severity: 'hint',
          field: 'access',
          text: 'Hears its own talkgroup alone: it has no receive list.',
        }
      : undefined,
  ({ digital }) => digital !== undefined,
);

/** A talkgroup or receive list on a channel that is not digital: it does nothing. */
export const groupWithoutMode = channelRule(
  'group-without-mode',
  'talkgroups on analogue channels',
  (channel) => {
    const { mode, talkgroup, receiveList } = channel;
    if (isDigital(mode) || (!talkgroup && !receiveList)) return undefined;
    return {
      severity: 'caution',
      field: 'mode',
      text: `Without effect: ${mode} has no talkgroups and no receive lists.`,
      mends: () => [setMend(channel, 'Take them away', { talkgroup: null, receiveList: null })],
    };
  },
  ({ digital }) => digital !== undefined,
);

/**
 * What noise alone reaches in 12.5 kHz, dBm: thermal noise of -174 dBm/Hz and 10 log 12,500 are -133, a receiver and a quiet place add
 * some 10 dB to that.
 */
export const NOISE = -123;

/** Polite to all from a level on that noise alone reaches: the key is refused on a free channel. */
export const levelInNoise = channelRule(
  'level-in-noise',
  'levels that noise alone reaches',
  (channel) => {
    const { mode, politeness } = channel;
    if (!hasTalkgroups(mode) || politeness?.to !== 'all' || politeness.level > NOISE) return undefined;
    return {
      severity: 'hint',
      field: 'access',
      text: `Noise alone reaches ${politeness.level} dBm: the key may be refused on a free channel.`,
      mends: () => [setMend(channel, 'Use -110 dBm', { politeness: { to: 'all', level: -110 } })],
    };
  },
  ({ digital }) => digital?.levels != null,
);
