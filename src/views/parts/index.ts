export { RadioFace } from './radio-face';
