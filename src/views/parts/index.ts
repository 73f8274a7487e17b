export { GetReady } from './get-ready';
export { heldContent } from './held-content';
export { RadioFace } from './radio-face';
