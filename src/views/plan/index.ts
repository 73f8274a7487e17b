export { PlanScreen } from './plan-screen';
