export { AtItsMoment, GetReady } from './get-ready';
export { heldContent } from './held-content';
export { pickFile } from './pick-file';
export { RadioFace } from './radio-face';
