import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import { planNames } from '@/server';
import { distancePreference, FindScreen } from '@/views/find';

export const metadata: Metadata = { title: 'Find stations' };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ plan?: string | string[] }>;
}) {
  const plans = await planNames();
  const { plan } = await searchParams;
  const chosen = plans.find(({ id }) => id === plan) ?? plans[0];
  const unit = distancePreference.read((await cookies()).get(distancePreference.cookie)?.value);
  return <FindScreen key={chosen?.id} plans={plans} planId={chosen?.id ?? null} unit={unit} />;
}
