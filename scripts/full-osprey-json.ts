import { fullOsprey } from './full-osprey';

/** Writes the full Osprey plan to standard output, for scripts that know no TypeScript. */
process.stdout.write(JSON.stringify(fullOsprey('pl_fullosprey')));
