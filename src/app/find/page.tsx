import type { Metadata } from 'next';
import { listPlans } from '@/server';
import { FindScreen } from '@/views/find';

export const metadata: Metadata = { title: 'Find stations' };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ plan?: string | string[] }>;
}) {
  const plans = (await listPlans()).map(({ id, name }) => ({ id, name }));
  const { plan } = await searchParams;
  const chosen = plans.find(({ id }) => id === plan) ?? plans[0];
  return <FindScreen key={chosen?.id} plans={plans} planId={chosen?.id ?? null} />;
}
