import { largePlan } from '../demo/large-plan';
import { readRow } from '../src/core/directory';
import { generateRegister } from '../src/sim/register/generate';

/** Writes the large plans to standard output, for scripts that know no TypeScript. */
const entries = generateRegister().flatMap((row) => {
  const read = readRow(row);
  return read.ok ? [read.value] : [];
});
process.stdout.write(JSON.stringify({ good: largePlan(entries), bad: largePlan(entries, { bad: true }) }));
