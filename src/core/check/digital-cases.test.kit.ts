import { groupId } from '../digital.test.kit';
import type { Channel } from '../plan';

/** What is said on a digital radio: a rule, what the channel is, severity, and what its mend makes of it. */
export const ON_DIGITAL: [string, Partial<Channel>, string, Partial<Channel> | undefined][] = [
  ['digital-without-talkgroup', { talkgroup: null }, 'caution', undefined],
  ['digital-without-receive-list', { talkgroup: groupId(1) }, 'hint', undefined],
  [
    'group-without-mode',
    { mode: 'FM', access: { kind: 'analogue', send: null, expect: null }, talkgroup: groupId(1) },
    'caution',
    { talkgroup: null },
  ],
  // thermal noise in 12.5 kHz is -174 + 41 = -133 dBm, and a receiver adds some 10 to that
  [
    'level-in-noise',
    { politeness: { to: 'all', level: -123 } },
    'hint',
    { politeness: { to: 'all', level: -110 } },
  ],
];
