import { callNumberText, hexadecimal, type Talkgroup } from '../../plan';
import { recordRule, type RecordFinding } from '../finding';
import type { Neighbour } from '../neighbour';

/** The talkgroups that directories know near by, by number; the first name of each. */
function groupsKnown(neighbours: readonly Neighbour[]): Map<number, string> {
  const known = new Map<number, string>();
  for (const { groups = [] } of neighbours)
    for (const { number, name } of groups) if (!known.has(number)) known.set(number, name);
  return known;
}

/** The number that the same figures are in the other notation; null where they are none there. */
const otherReadings = (number: number): number[] => {
  const asHex = String(number).length <= 6 ? parseInt(String(number), 16) : null;
  const figures = number.toString(16);
  const asDecimal = /^\d+$/.test(figures) ? Number(figures) : null;
  return [asHex, asDecimal].filter((one) => one !== null && one !== number) as number[];
};

const alike = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase();

/**
 * Talkgroups whose figures a directory has in the other notation: 416 typed where 0x416 was meant, or the other way round. Said where the
 * directories near by know no such number, or know it under another name while the other reading has this one.
 */
export const hexMixUp = recordRule(
  'hex-mix-up',
  'numbers of talkgroups in the other notation',
  ['talkgroup'],
  function* ({ plan, neighbours }) {
    const known = groupsKnown(neighbours);
    if (known.size === 0) return;
    for (const group of plan.talkgroups) {
      if (group.call !== 'group') continue;
      const here = known.get(group.number);
      const meant = otherReadings(group.number).find((other) => {
        const name = known.get(other);
        if (name === undefined) return false;
        return here === undefined || (alike(name, group.name) && !alike(here, group.name));
      });
      if (meant !== undefined) yield found(group, meant, known.get(meant)!);
    }
  },
  ({ digital }) => digital !== undefined,
);

const found = (group: Talkgroup, meant: number, name: string): RecordFinding => ({
  severity: 'caution',
  kind: 'talkgroup',
  id: group.id,
  text:
    String(group.number) === hexadecimal(meant).slice(2)
      ? `“${group.name}” has the number ${group.number}, and the directory has “${name}” as ${hexadecimal(meant)}: as decimal that is ${meant}. Nobody is heard.`
      : `“${group.name}” has the number ${group.number}, which is ${hexadecimal(group.number)}, and the directory has “${name}” as ${meant} decimal. Nobody is heard.`,
  mends: () => [
    {
      label: `Use ${callNumberText(meant)}`,
      edit: { name: 'change', kind: 'talkgroup', changes: [{ id: group.id, set: { number: meant } }] },
    },
  ],
});
