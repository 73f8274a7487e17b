import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { preload } from 'react-dom';
import { getPlan, Problem, wantModel, wantPlanId, type Plan } from '@/server';
import { PlanScreen } from '@/views/plan';
import { Unopened } from '@/views/shell';

/** The plan; a sentence where there is one that cannot be opened. */
async function load(params: Promise<{ id: string }>): Promise<Pick<Plan, 'id' | 'name'> | string> {
  try {
    const { plan } = await getPlan(wantPlanId((await params).id));
    wantModel(plan.modelId);
    return { id: plan.id, name: plan.name };
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    if ([404, 410].includes(error.status)) notFound();
    return error.detail;
  }
}

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> {
  const kept = await load(params);
  return { title: typeof kept === 'string' ? 'A plan that cannot be opened' : kept.name };
}

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const kept = await load(params);
  if (typeof kept === 'string') return <Unopened id={(await params).id} why={kept} />;
  // The screen asks for it as soon as its scripts are there; by then it has come.
  preload(`/api/plans/${kept.id}`, { as: 'fetch', crossOrigin: 'anonymous' });
  return <PlanScreen key={kept.id} id={kept.id} name={kept.name} />;
}
