export { Shell } from './shell';
export { readTheme, THEME_COOKIE } from './theme';
export { Broken } from './broken';
