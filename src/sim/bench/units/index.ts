import { DIGITALS } from './digitals';
import { GANNETS } from './gannets';
import { ORIELS } from './oriels';
import { TERNS } from './terns';
import type { UnitSpec } from './unit';

export { newMemory, type UnitSpec } from './unit';

/** Every radio that lies on the bench. */
export const UNITS: readonly UnitSpec[] = [...TERNS, ...GANNETS, ...ORIELS, ...DIGITALS];
