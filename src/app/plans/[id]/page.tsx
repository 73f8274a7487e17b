import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { getPlan, Problem, wantModel, type KeptPlan } from '@/server';
import { PlanScreen } from '@/views/plan';
import { Unopened } from '@/views/shell';

/** The plan; a sentence where there is one that cannot be opened. */
async function load(params: Promise<{ id: string }>): Promise<KeptPlan | string> {
  const { id } = await params;
  try {
    const kept = await getPlan(id);
    wantModel(kept.plan.modelId);
    return kept;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    if ([404, 410].includes(error.status)) notFound();
    return error.detail;
  }
}

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> {
  const kept = await load(params);
  return { title: typeof kept === 'string' ? 'A plan that cannot be opened' : kept.plan.name };
}

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const kept = await load(params);
  if (typeof kept === 'string') return <Unopened id={(await params).id} why={kept} />;
  return <PlanScreen key={kept.plan.id} initial={kept} />;
}
