import { openPlanPage, planTitle, type PlanParams } from '../open-plan';

export const generateMetadata = (props: PlanParams) => planTitle(props, ', on radios');

export default function Page(props: PlanParams) {
  return openPlanPage(props, 'radios');
}
