import type { Source } from '../../core/directory';
import type { Account } from './accounts';

/** A directory that Veridon asks; one that wants an account says whether it takes it, by throwing where it does not. */
export interface Directory extends Source {
  tryAccount?(account: Account, signal: AbortSignal): Promise<void>;
}
