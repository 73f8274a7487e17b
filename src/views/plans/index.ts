export { PlansScreen } from './plans-screen';
