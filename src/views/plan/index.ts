export { PlanScreen, type PlanPage } from './plan-screen';
