import { DISTANCE_UNITS } from '@/core/radio';
import { preference } from '@/ui/preference';

/** Whether distances are shown in km or in miles. */
export const distancePreference = preference('veridon-distance', DISTANCE_UNITS);
