'use client';

import { useRouter } from 'next/navigation';
import { useDesk } from '../desk';
import { PlanHeader } from '../plan-header';

export function RadiosPage() {
  const { hand } = useDesk();
  const router = useRouter();
  return (
    <main className="flex h-full min-w-0 flex-col">
      <PlanHeader onCheck={() => router.push(`/plans/${hand.plan.id}`)} />
    </main>
  );
}
