import { openPlanPage, planTitle, type PlanParams } from '../open-plan';

export const generateMetadata = (props: PlanParams) => planTitle(props, ', its bytes');

export default function Page(props: PlanParams) {
  return openPlanPage(props, 'bytes');
}
