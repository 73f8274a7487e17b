export { distancePreference } from './distance-preference';
export { FindScreen } from './find-screen';
