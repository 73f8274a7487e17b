export { FindScreen } from './find-screen';
