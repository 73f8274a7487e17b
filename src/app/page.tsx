import type { Metadata } from 'next';
import { listPlans } from '@/server';
import { PlansScreen } from '@/views/plans';

export const metadata: Metadata = { title: 'Plans' };
export const dynamic = 'force-dynamic';

export default async function Page() {
  return <PlansScreen plans={await listPlans()} />;
}
