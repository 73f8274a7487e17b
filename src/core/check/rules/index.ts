import type { Rule } from '../finding';
import { accessWithoutMode } from './access-without-mode';
import { alwaysOnInScan } from './always-on-in-scan';
import { duplicateChannel } from './duplicate-channel';
import { emptyName } from './empty-name';
import { modeNotHeld } from './mode-not-held';
import { nameCollision } from './name-collision';
import { oddShift } from './odd-shift';
import { offStep } from './off-step';
import { outOfRange } from './out-of-range';
import { outsideLicence } from './outside-licence';
import { powerAboveLicence } from './power-above-licence';
import { slotOutOfRange } from './slot-out-of-range';
import { toneNotHeld } from './tone-not-held';
import { transmitOnOutput } from './transmit-on-output';

/** Every rule, in the order in which findings of one channel are shown. */
export const RULES: readonly Rule[] = [
  slotOutOfRange,
  outOfRange,
  offStep,
  modeNotHeld,
  toneNotHeld,
  outsideLicence,
  powerAboveLicence,
  oddShift,
  transmitOnOutput,
  accessWithoutMode,
  duplicateChannel,
  nameCollision,
  alwaysOnInScan,
  emptyName,
];
