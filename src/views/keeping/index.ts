export { KeepingScreen } from './keeping-screen';
