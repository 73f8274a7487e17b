import type { Source } from '../../core/directory';
import { ISLES_LEDGER } from './isles-ledger';
import { RELAY_REGISTER } from './relay-register';

export { accountOf, keepAccount, type Account } from './accounts';
export { askDirectory, PATIENCE_MS, rubbish } from './asking';
export { ISLES_LEDGER, RELAY_REGISTER };

/** The directories that Veridon knows. */
export const SOURCES: readonly Source[] = [RELAY_REGISTER, ISLES_LEDGER];
