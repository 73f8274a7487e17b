import type { Setting } from '../../settings';
import { displayShows, keyBeep, powerOnText, timeOutTimer } from '../common-settings';

export const settings: Setting[] = [
  displayShows('showLeft', 'Left side shows', 'What the large line of the left side shows.', 'name'),
  displayShows('showRight', 'Right side shows', 'What the large line of the right side shows.', 'name'),
  keyBeep,
  {
    key: 'crossBand',
    scope: 'plan',
    topic: 'transmit',
    name: 'Cross-band repeat',
    help: 'What one side receives the other side transmits.',
    value: { kind: 'switch' },
    default: false,
  },
  timeOutTimer([0, 60, 180, 300, 600]),
  powerOnText(7),
];
