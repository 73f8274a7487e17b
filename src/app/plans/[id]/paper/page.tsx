import '../../../paper.css';
import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { canMakePdf, getPlan, Problem, wantModel, wantPlanId, type Plan } from '@/server';
import { PaperScreen } from '@/views/paper';
import { Unopened } from '@/views/shell';
import { planTitle, type PlanParams } from '../open-plan';

interface Params extends PlanParams {
  searchParams: Promise<{ as?: string | string[] }>;
}

export const generateMetadata = (props: PlanParams): Promise<Metadata> => planTitle(props, ', on paper');

/** The plan; a sentence where it cannot be opened. */
async function load(id: string): Promise<Plan | string> {
  try {
    const { plan } = await getPlan(wantPlanId(id));
    wantModel(plan.modelId);
    return plan;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    if ([404, 410].includes(error.status)) notFound();
    return error.detail;
  }
}

export default async function Page({ params, searchParams }: Params) {
  const { id } = await params;
  const { as } = await searchParams;
  const plan = await load(id);
  return typeof plan === 'string' ? (
    <Unopened id={id} why={plan} />
  ) : (
    <PaperScreen plan={plan} as={[as].flat()[0]} pdf={canMakePdf()} />
  );
}
