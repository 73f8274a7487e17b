import { dmrSettings } from '../dmr-settings';

/** Of these the own ID counts after the radio was switched off and on. */
export const settings = dmrSettings.map((setting) =>
  setting.key === 'radioId' ? { ...setting, restart: true } : setting,
);
