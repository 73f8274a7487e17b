import { ternSettings } from '../tern-settings';

export const settings = ternSettings(8);
