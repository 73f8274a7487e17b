import type { Metadata } from 'next';
import { pageOfPlans, planNames, plansToShow } from '@/server';
import { PlansScreen } from '@/views/plans';

export const metadata: Metadata = { title: 'Plans' };

export default async function Page({ searchParams }: { searchParams: Promise<{ show?: string }> }) {
  const { show } = await searchParams;
  const [{ plans, total }, removed] = await Promise.all([
    pageOfPlans({ count: plansToShow(show) }),
    planNames({ removed: true }),
  ]);
  return <PlansScreen plans={plans} total={total} removed={removed} />;
}
