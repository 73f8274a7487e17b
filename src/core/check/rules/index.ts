import type { Rule } from '../finding';
import { accessWithoutMode } from './access-without-mode';
import { alwaysOnInScan } from './always-on-in-scan';
import { digitalWithoutAccess } from './digital-without-access';
import { digitalWithoutOwnCall } from './digital-without-own-call';
import {
  digitalWithoutReceiveList,
  digitalWithoutTalkgroup,
  groupWithoutMode,
  levelInNoise,
} from './digital-without-talkgroup';
import { distressChannel } from './distress-channel';
import { duplicateChannel } from './duplicate-channel';
import { emptyName } from './empty-name';
import { fmInAirband } from './fm-in-airband';
import { licenceFreeChannel } from './licence-free-channel';
import { modeNotHeld } from './mode-not-held';
import { nameCollision } from './name-collision';
import { notUnderstood } from './not-understood';
import { oddShift } from './odd-shift';
import { offStep } from './off-step';
import { outOfRange } from './out-of-range';
import { outsideLicence } from './outside-licence';
import { otherThanDirectory } from './other-than-directory';
import { overRepeater } from './over-repeater';
import { powerAboveLicence } from './power-above-licence';
import { satelliteDownlink } from './satellite-downlink';
import { slotOutOfRange } from './slot-out-of-range';
import { toneNotHeld } from './tone-not-held';
import { toneOnCalling } from './tone-on-calling';
import { wideInNarrow } from './wide-in-narrow';

/** Every rule, in the order in which findings of one channel are shown. */
export const RULES: readonly Rule[] = [
  notUnderstood,
  slotOutOfRange,
  outOfRange,
  offStep,
  modeNotHeld,
  toneNotHeld,
  distressChannel,
  outsideLicence,
  powerAboveLicence,
  licenceFreeChannel,
  oddShift,
  overRepeater,
  satelliteDownlink,
  wideInNarrow,
  fmInAirband,
  toneOnCalling,
  digitalWithoutAccess,
  digitalWithoutTalkgroup,
  digitalWithoutReceiveList,
  digitalWithoutOwnCall,
  levelInNoise,
  accessWithoutMode,
  groupWithoutMode,
  otherThanDirectory,
  duplicateChannel,
  nameCollision,
  alwaysOnInScan,
  emptyName,
];
