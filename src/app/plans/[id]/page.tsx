import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { getPlan, Problem, type KeptPlan } from '@/server';
import { PlanScreen } from '@/views/plan';

async function load(params: Promise<{ id: string }>): Promise<KeptPlan> {
  const { id } = await params;
  try {
    return await getPlan(id);
  } catch (error) {
    if (error instanceof Problem && [404, 410].includes(error.status)) notFound();
    throw error;
  }
}

export async function generateMetadata({ params }: { params: Promise<{ id: string }> }): Promise<Metadata> {
  return { title: (await load(params)).plan.name };
}

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const kept = await load(params);
  return <PlanScreen key={kept.plan.id} initial={kept} />;
}
