import { channelRule, setMend } from '../finding';

/** A channel that never falls silent stops the scan for good. */
export const alwaysOnInScan = channelRule('always-on-in-scan', 'broadcasts in the scan', (channel) =>
  channel.alwaysOn && channel.scan
    ? {
        severity: 'hint',
        field: 'scan',
        text: 'The scan stops here and stays: this station never falls silent.',
        mends: () => [setMend(channel, 'Leave it out of the scan', { scan: false })],
      }
    : undefined,
);
