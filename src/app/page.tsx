import type { Metadata } from 'next';
import { listPlans } from '@/server';
import { PlansScreen } from '@/views/plans';

export const metadata: Metadata = { title: 'Plans' };
export const dynamic = 'force-dynamic';

export default async function Page() {
  const [plans, removed] = await Promise.all([listPlans(), listPlans({ removed: true })]);
  return <PlansScreen plans={plans} removed={removed.map(({ id, name }) => ({ id, name }))} />;
}
