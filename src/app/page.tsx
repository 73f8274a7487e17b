import type { Metadata } from 'next';
import { listPlans, planNames } from '@/server';
import { PlansScreen } from '@/views/plans';

export const metadata: Metadata = { title: 'Plans' };

export default async function Page() {
  const [plans, removed] = await Promise.all([listPlans(), planNames({ removed: true })]);
  return <PlansScreen plans={plans} removed={removed} />;
}
