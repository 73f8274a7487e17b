import { accessOnAir } from '../radio';
import type { Channel } from './channel.schema';

type Comparable = Pick<Channel, 'rx' | 'tx' | 'mode' | 'access'>;

/** What a channel is on air, as a text that channels have in common where they are the same, whatever they or their codes are called. */
export const onAirKey = ({ rx, tx, mode, access }: Comparable): string =>
  `${rx} ${tx} ${mode} ${accessOnAir(access)}`;

/** True where receive, transmit, mode and access agree on air. */
export const sameChannel = (a: Comparable, b: Comparable): boolean => onAirKey(a) === onAirKey(b);

/** True where the two frequencies agree but not all the rest: worth looking at side by side. */
export function nearDuplicate(a: Comparable, b: Comparable): boolean {
  return a.rx === b.rx && (a.tx === b.tx || a.tx === null || b.tx === null) && !sameChannel(a, b);
}
