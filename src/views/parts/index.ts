export { AtItsMoment, GetReady } from './get-ready';
export { JobPanel } from './job-panel';
export { heldContent } from './held-content';
export { base64Of, pickFile } from './pick-file';
export { RadioFace } from './radio-face';
