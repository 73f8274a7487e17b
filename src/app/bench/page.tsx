import type { Metadata } from 'next';
import { benchUrl, planNames } from '@/server';
import { BenchScreen } from '@/views/bench';

export const metadata: Metadata = { title: 'Bench' };

export default async function Page({
  searchParams,
}: {
  searchParams: Promise<{ plan?: string | string[] }>;
}) {
  const plans = await planNames();
  const { plan } = await searchParams;
  return (
    <BenchScreen
      plans={plans}
      planId={plans.find(({ id }) => id === plan)?.id ?? null}
      benchUrl={benchUrl()}
    />
  );
}
