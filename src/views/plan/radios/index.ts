export { RadiosPage } from './radios-page';
