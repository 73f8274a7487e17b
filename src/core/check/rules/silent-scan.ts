import type { ScanList } from '../../plan';
import { recordRule } from '../finding';
import { called, setChannels } from '../record-mends';

/** A channel of a scan list that has no list of its own: the scan goes over it, but nobody can begin one there. */
export const silentScan = recordRule(
  'silent-scan',
  'channels of a scan list that have none',
  ['channel', 'scanList'],
  function* (context) {
    const { plan } = context;
    const inList = new Map<string, ScanList>();
    for (const list of plan.scanLists)
      for (const id of list.members) if (!inList.has(id)) inList.set(id, list);
    if (inList.size === 0) return;
    for (const channel of plan.channels) {
      const list = inList.get(channel.id);
      if (!list || channel.scanList) continue;
      yield {
        ...{ kind: 'channel', id: channel.id, field: 'scan', severity: 'caution' },
        text: `A scan begun on “${called(channel)}” is silent: the channel has no scan list, though “${list.name}” has the channel.`,
        mends: () => [setChannels(`Give it “${list.name}”`, [channel], { scanList: list.id })],
      };
    }
  },
  ({ scanLists }) => scanLists?.by === 'channel',
);
