import { formatAccess, formatFrequency, formatPower } from '../radio';
import { FIELD_NAMES } from './channel';
import type { ChannelFields } from './channel.schema';
import type { ChannelSet } from './edits/change.schema';
import { KINDS, type Kind } from './kinds';
import type { LabelParts } from './label.schema';
import { generalWords, targetWords } from '../document/label';
import { countOf } from '../document/record';
import { PLAN_STRUCTURE } from './structure';

/**
 * What an edit is called in the history and on the undo button. The log has the parts of a label, and the words are made of them when they are shown: so the whole
 * history speaks, and is searched, in the words of today.
 */

type Parts<O extends LabelParts['of']> = Extract<LabelParts, { of: O }>;

/** The ways to arrange channels. */
export const ARRANGE_WORDS = {
  move: 'Move',
  swap: 'Swap',
  'close gaps': 'Close gaps:',
  sort: 'Sort',
  renumber: 'Renumber',
};

/** `“Ketterby”`, `the zone “Team”`, `12 channels`. */
const target = (kind: Kind, which: { n: number; name?: string | undefined }) =>
  targetWords(PLAN_STRUCTURE, kind, which);

function valueWords(key: keyof ChannelFields, set: ChannelSet): string | undefined {
  if (key === 'rx') return formatFrequency(set.rx!);
  if (key === 'tx') return formatFrequency(set.tx!);
  if (key === 'access') return formatAccess(set.access!) || 'open';
  if (key === 'power') return formatPower(set.power!);
  if (key === 'mode') return set.mode;
  return undefined;
}

function channelWords(parts: Parts<'change channels'>): string {
  const which = target('channel', parts);
  if (parts.fields.length !== 1) return `Change ${which}`;
  const key = parts.fields[0] as keyof ChannelFields;
  const words = FIELD_NAMES[key];
  if (parts.set === undefined) return `Set ${words} of ${which}`;
  const set = parts.set as ChannelSet;
  if (key === 'tx' && set.tx === null) return `Set ${which} to listen only`;
  if (key === 'unclear') return `Mark what was typed into ${which}`;
  if (key === 'scan') return `${set.scan ? 'Scan' : 'Leave out of the scan'}: ${which}`;
  if (key === 'satellite') return `Mark ${which} as ${set.satellite ? '' : 'not '}working a satellite`;
  if (key === 'name') return `Rename ${which} to “${set.name}”`;
  const value = valueWords(key, set);
  return value === undefined ? `Change ${words} of ${which}` : `Set ${words} of ${which} to ${value}`;
}

function detailWords({ field, value }: Parts<'describe'>): string {
  switch (field) {
    case 'name':
      return `Rename the plan to “${value}”`;
    case 'origin':
      return value === null
        ? 'Part from the plan that it came from'
        : 'Look at what changed where it came from';
    case 'lookedAt':
      return 'Look at what changed in a plan made of this one';
    case 'unit':
      return value === null ? 'Work on it for any radio of its model' : `Work on it for ${value}`;
    case 'settings':
      return 'Change the radio’s settings';
    case 'uses':
      return 'Change the documents that the plan uses';
    case 'abbreviations':
      return 'Change the abbreviations';
    case 'details':
      return 'Change the plan’s details';
  }
}

/** The words of a label. */
export function labelWords(parts: LabelParts): string {
  switch (parts.of) {
    case 'arrange':
      return `${ARRANGE_WORDS[parts.how]} ${countOf(parts.n, KINDS.channel)}`;
    case 'change channels':
      return channelWords(parts);
    case 'describe':
      return detailWords(parts);
    case 'place':
      return `Place ${target('channel', parts)}`;
    case 'set':
      return parts.n === 1 ? 'Change a setting of the radio' : `Change ${parts.n} settings of the radio`;
    case 'together':
      return parts.label;
    default:
      return generalWords(PLAN_STRUCTURE, parts);
  }
}
