import { idsOf } from '../core/plan';

/** Ids for what is read. */
export const NEW_IDS = idsOf(() => crypto.getRandomValues(new Uint8Array(12)));
