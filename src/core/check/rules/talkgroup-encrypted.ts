import { recordRule } from '../finding';
import { doubledIn } from './talkgroup-doubled';

/** An encrypted talkgroup that a channel calls. */
export const talkgroupEncrypted = recordRule(
  'talkgroup-encrypted',
  'encrypted talkgroups',
  ['talkgroup'],
  function* ({ plan: { channels, talkgroups } }) {
    const doubled = doubledIn(talkgroups);
    const called = new Set<unknown>(channels.map((one) => one.talkgroup));
    for (const group of talkgroups)
      if (group.encrypted && group.call !== 'private' && called.has(group.id) && !doubled.has(group))
        yield {
          ...{ kind: 'talkgroup', id: group.id, severity: 'hint' },
          text: `“${group.name}” is encrypted: a radio without its key hears noise there.`,
        };
  },
  ({ digital }) => digital !== undefined,
);
