export { Shell } from './shell';
export { themePreference } from './theme';
export { Broken } from './broken';
export { Unopened } from './unopened';
