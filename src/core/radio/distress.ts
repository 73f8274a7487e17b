import type { Hertz, Range } from './frequency';
import { occupied, type Mode } from './mode';
import type { Source } from './source';

/** Frequencies on which lives hang: distress, safety, calling and emergency at sea and in the air. */
export interface DistressChannel extends Range {
  /** What it is for, as it stands in a sentence. */
  purpose: string;
  service: 'sea' | 'air' | 'beacons';
}

export const DISTRESS_SOURCE: Source = {
  title: 'ITU Radio Regulations, Appendix 15, and ICAO Annex 10',
  edition: '2020',
};

const at = (mhz: number, service: DistressChannel['service'], purpose: string): DistressChannel => {
  const hz = Math.round(mhz * 1_000_000);
  return { from: hz, to: hz, service, purpose };
};

export const DISTRESS: readonly DistressChannel[] = [
  at(2.1745, 'sea', 'distress at sea by telex'),
  at(2.182, 'sea', 'distress at sea by voice'),
  at(2.1875, 'sea', 'digital distress calls at sea'),
  at(3.023, 'air', 'search and rescue from the air'),
  at(4.125, 'sea', 'distress at sea by voice'),
  at(4.1775, 'sea', 'distress at sea by telex'),
  at(4.2075, 'sea', 'digital distress calls at sea'),
  at(5.68, 'air', 'search and rescue from the air'),
  at(6.215, 'sea', 'distress at sea by voice'),
  at(6.268, 'sea', 'distress at sea by telex'),
  at(6.312, 'sea', 'digital distress calls at sea'),
  at(8.291, 'sea', 'distress at sea by voice'),
  at(8.3765, 'sea', 'distress at sea by telex'),
  at(8.4145, 'sea', 'digital distress calls at sea'),
  at(12.29, 'sea', 'distress at sea by voice'),
  at(12.52, 'sea', 'distress at sea by telex'),
  at(12.577, 'sea', 'digital distress calls at sea'),
  at(16.42, 'sea', 'distress at sea by voice'),
  at(16.695, 'sea', 'distress at sea by telex'),
  at(16.8045, 'sea', 'digital distress calls at sea'),
  at(121.5, 'air', 'the emergency channel of aircraft'),
  at(123.1, 'air', 'search and rescue from the air'),
  at(123.45, 'air', 'the calling channel from aircraft to aircraft'),
  at(156.3, 'sea', 'channel 6, search and rescue between ships and aircraft'),
  at(156.525, 'sea', 'channel 70, digital distress calls at sea'),
  at(156.65, 'sea', 'channel 13, safety between ships’ bridges'),
  at(156.8, 'sea', 'channel 16, distress and calling at sea'),
  at(161.975, 'sea', 'the positions of ships and of people in the water'),
  at(162.025, 'sea', 'the positions of ships and of people in the water'),
  at(243.0, 'air', 'the emergency channel of military aircraft'),
  { from: 406_000_000, to: 406_100_000, service: 'beacons', purpose: 'emergency beacons to satellites' },
];

/** Half of what a receiver there hears, Hz: voice by sideband below 30 MHz, FM or AM above. */
const half = (hz: Hertz) => (hz < 30_000_000 ? 1_500 : 8_000);

/** The channel that a transmission would be heard on; undefined for none. */
export function distressAt(hz: Hertz, mode: Mode): DistressChannel | undefined {
  const span = occupied(hz, mode);
  return DISTRESS.find(({ from, to }) => span.from < to + half(to) && span.to > from - half(from));
}
