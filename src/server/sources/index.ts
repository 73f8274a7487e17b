import type { Directory } from './directory';
import { ISLES_LEDGER } from './isles-ledger';
import { RELAY_REGISTER } from './relay-register';

export { accountOf, keepAccount, type Account } from './accounts';
export { askDirectory, patienceMs, rubbish } from './asking';
export { RELAY_REGISTER };

/** The directories that Veridon knows. */
export const SOURCES: readonly Directory[] = [RELAY_REGISTER, ISLES_LEDGER];
