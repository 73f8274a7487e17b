import { accessOnAir } from '../radio';
import type { Channel } from './channel';

type Comparable = Pick<Channel, 'rx' | 'tx' | 'mode' | 'access'>;

/** True where receive, transmit, mode and access agree on air: the same channel, whatever it or its code is called. */
export function sameChannel(a: Comparable, b: Comparable): boolean {
  return (
    a.rx === b.rx && a.tx === b.tx && a.mode === b.mode && accessOnAir(a.access) === accessOnAir(b.access)
  );
}

/** True where the two frequencies agree but not all the rest: worth looking at side by side. */
export function nearDuplicate(a: Comparable, b: Comparable): boolean {
  return a.rx === b.rx && (a.tx === b.tx || a.tx === null || b.tx === null) && !sameChannel(a, b);
}
