export { GetReady } from './get-ready';
export { RadioFace } from './radio-face';
