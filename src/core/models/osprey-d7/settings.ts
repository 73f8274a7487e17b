export { dmrSettings as settings } from '../dmr-settings';
