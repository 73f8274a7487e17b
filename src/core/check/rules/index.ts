import type { Rule } from '../finding';
import { gradeNotStated } from './grade-not-stated';
import { digitalWithoutOwnId } from './digital-without-own-id';
import { silentScan } from './silent-scan';
import { groupNotInList } from './group-not-in-list';
import { tooMany } from './too-many';
import { emptyZone } from './empty-zone';
import { outsideZones } from './outside-zones';
import { setUpOnDial } from './set-up-on-dial';
import { setUpWithoutHome } from './set-up-without-home';
import { setUpWithoutChannels } from './set-up-without-channels';
import { setUpStartOutside } from './set-up-start-outside';
import { setUpStartElsewhere } from './set-up-start-elsewhere';
import { scanListEmpty } from './scan-list-empty';
import { scanListUnused } from './scan-list-unused';
import { scanNeverGoesOn } from './scan-never-goes-on';
import { scanWithoutFirst } from './scan-without-first';
import { receiveListUnused } from './receive-list-unused';
import { talkgroupDoubled } from './talkgroup-doubled';
import { talkgroupUnused } from './talkgroup-unused';
import { talkgroupEncrypted } from './talkgroup-encrypted';
import { hexMixUp } from './hex-mix-up';
import { alikeInName } from './alike-in-name';
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

/** Every rule, in the order in which findings of one channel, and those of other records, are shown. */
export const RULES: readonly Rule[] = [
  gradeNotStated,
  digitalWithoutOwnId,
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
  silentScan,
  groupNotInList,
  tooMany,
  emptyZone,
  outsideZones,
  setUpOnDial,
  setUpWithoutHome,
  setUpWithoutChannels,
  setUpStartOutside,
  setUpStartElsewhere,
  scanListEmpty,
  scanListUnused,
  scanNeverGoesOn,
  scanWithoutFirst,
  receiveListUnused,
  talkgroupDoubled,
  talkgroupUnused,
  talkgroupEncrypted,
  hexMixUp,
  alikeInName,
];
