import { buildReader } from './prepare.mjs';

/** Before the first test: the processes that read files are those of the sources as they are. */
export default () => buildReader();
