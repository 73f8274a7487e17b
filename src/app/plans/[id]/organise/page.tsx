import { openPlanPage, planTitle, type PlanParams } from '../open-plan';

export const generateMetadata = (props: PlanParams) => planTitle(props, ', organised');

export default function Page(props: PlanParams) {
  return openPlanPage(props, 'organise');
}
