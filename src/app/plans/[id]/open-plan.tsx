import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { preload } from 'react-dom';
import { getPlan, Problem, wantModel, wantPlanId, type Plan } from '@/server';
import { PlanScreen, type PlanPage } from '@/views/plan';
import { Unopened } from '@/views/shell';

export interface PlanParams {
  params: Promise<{ id: string }>;
}

/** The plan; a sentence where there is one that cannot be opened. */
async function load(params: PlanParams['params']): Promise<Pick<Plan, 'id' | 'name'> | string> {
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

/** The title of a page of a plan; `of` says which page, where it is not that of its channels. */
export async function planTitle({ params }: PlanParams, of = ''): Promise<Metadata> {
  const kept = await load(params);
  return { title: typeof kept === 'string' ? 'A plan that cannot be opened' : `${kept.name}${of}` };
}

/** A page of a plan. */
export async function openPlanPage({ params }: PlanParams, page: PlanPage) {
  const kept = await load(params);
  if (typeof kept === 'string') return <Unopened id={(await params).id} why={kept} />;
  // The screen asks for it as soon as its scripts are there; by then it has come.
  preload(`/api/plans/${kept.id}`, { as: 'fetch', crossOrigin: 'anonymous' });
  return <PlanScreen key={kept.id} id={kept.id} name={kept.name} page={page} />;
}
